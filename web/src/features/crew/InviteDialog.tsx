import { Button, Form, Input, Modal } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { useInvite, type Person } from './queries';
import { worded } from '../../shared/words';
import { words } from './words';

const RIGHTS = ['WORKER', 'TEAM_COORDINATOR', 'COORDINATOR'];

export function InviteDialog({ person, onClose }: { person: Person; onClose: () => void }) {
  const invite = useInvite(person.id);
  const [copied, setCopied] = useState(false);
  const link = invite.data && window.location.origin + invite.data.link;
  return (
    <Modal open title={words.inviteTitle(person.name)} footer={null} onCancel={onClose}>
      {link ? (
        <>
          <p>{words.linkReady}</p>
          <Input readOnly value={link} aria-label="Link" />
          <div style={{ marginTop: 12, display: 'flex', gap: 8 }}>
            <Button
              type="primary"
              onClick={() => {
                void navigator.clipboard.writeText(link).then(() => setCopied(true));
              }}
            >
              {copied ? words.copied : words.copy}
            </Button>
            <Button onClick={onClose}>{words.close}</Button>
          </div>
        </>
      ) : (
        <Form
          layout="vertical"
          requiredMark={false}
          initialValues={{
            email: person.email ?? '',
            right: person.right && person.right !== 'NONE' ? person.right : 'WORKER',
          }}
          onFinish={(values: Schemas['InvitationWish']) => invite.mutate(values)}
        >
          <Form.Item label={words.email} name="email" rules={[{ required: true }]}>
            <Input autoFocus inputMode="email" />
          </Form.Item>
          <Form.Item label={words.right} name="right">
            <Choice options={RIGHTS.map((r) => ({ value: r, label: worded(words.rights, r) }))} />
          </Form.Item>
          {invite.error && <Fault error={invite.error} />}
          <Button type="primary" htmlType="submit" loading={invite.isPending}>
            {words.makeLink}
          </Button>
        </Form>
      )}
    </Modal>
  );
}
