import { AutoComplete, Form, Modal, type RefSelectProps } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { onReasonAsked } from '../shared/api/reason';
import { usualReasons } from '../shared/words';
import { frameWords as words } from './words';

interface Asked {
  why: string;
  answer: (reason: string | null) => void;
}

/** Asks for the reason that the organisation wants where a limit warns: chosen, or typed. */
export function ReasonDialog() {
  const [asked, setAsked] = useState<Asked | null>(null);
  const [reason, setReason] = useState('');
  const field = useRef<RefSelectProps>(null);
  useEffect(() => onReasonAsked((why) => new Promise((answer) => setAsked({ why, answer }))), []);
  const end = (said: string | null) => {
    asked?.answer(said);
    setAsked(null);
    setReason('');
  };
  return (
    <Modal
      open={asked !== null}
      // Above whatever was being done.
      zIndex={1200}
      centered
      title={words.reasonTitle}
      okText={words.reasonSave}
      okButtonProps={{ disabled: !reason.trim() }}
      afterOpenChange={(isOpen) => isOpen && field.current?.focus()}
      onOk={() => end(reason.trim())}
      onCancel={() => end(null)}
    >
      <p>{asked?.why}</p>
      <Form layout="vertical" onFinish={() => reason.trim() && end(reason.trim())}>
        <Form.Item label={words.reason} htmlFor="act-reason">
          <AutoComplete
            ref={field}
            id="act-reason"
            value={reason}
            maxLength={200}
            options={usualReasons.map((value) => ({ value }))}
            onChange={setReason}
          />
        </Form.Item>
      </Form>
    </Modal>
  );
}
