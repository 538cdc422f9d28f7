import { Form, type FormInstance } from 'antd';
import { useEffect, useRef } from 'react';
import { ProblemError } from '../api/client';

/**
 * A form that stays on its page: what is read anew is shown in it, as long as nobody has begun to
 * change something.
 */
export function useFormOf<Values>(read: object | undefined): FormInstance<Values> {
  const [form] = Form.useForm<Values>();
  const before = useRef(read);
  useEffect(() => {
    if (before.current && read && before.current !== read && !form.isFieldsTouched()) {
      form.resetFields();
    }
    before.current = read;
  }, [read, form]);
  return form;
}

/**
 * What stands in the form was saved: nobody is changing it any more, and until it is read anew it is
 * as it stands here.
 */
export function saved(form: FormInstance) {
  form.setFieldValue('tag', '*');
  form.setFields(form.getFieldsError().map(({ name }) => ({ name, touched: false })));
}

/** The tag of what a form began with; of a part of it, where each has its own. */
export function tagOf(form: FormInstance, part?: string): string {
  return form.getFieldValue(part ? ['tags', part] : 'tag');
}

/** Somebody changed it meanwhile, and whoever saves was told: the next time theirs is known. */
export function toldOf(form: FormInstance, error: unknown, part?: string) {
  if (error instanceof ProblemError && error.problem.theirsTag) {
    form.setFieldValue(part ? ['tags', part] : ['tag'], error.problem.theirsTag);
  }
}

/** A part was saved, and what stands there now is what the form says. */
export function partSaved(form: FormInstance, part: string) {
  form.setFieldValue(['tags', part], '*');
}
