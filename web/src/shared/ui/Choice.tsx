import { Select, type SelectProps } from 'antd';
import { useRef, type KeyboardEvent } from 'react';
import styles from './choice.module.css';

type Value = string | number;
type Option<V extends Value> = {
  value: V;
  label: string;
  /** What is to be known before it is chosen. */
  hint?: string;
};

type Props<V extends Value> = Omit<SelectProps, 'value' | 'onChange' | 'options' | 'mode'> & {
  options: Option<V>[];
} & (
    | { multiple?: false; value?: V | null; onChange?: (value: V) => void }
    | { multiple: true; value?: V[]; onChange?: (value: V[]) => void }
  );

/**
 * One or several of a list, found by typing. Tab takes what is marked, if it was typed or moved
 * to, and always goes on to the next field: left to the select itself, a Tab that comes while the
 * list is still closing is swallowed, and the next words land in the wrong field.
 */
export function Choice<V extends Value>({ options, ...props }: Props<V>) {
  const marked = useRef<V | null>(null);
  const isMeant = useRef(false);
  const isOpen = useRef(false);

  const take = (value: V) => {
    if (!props.multiple) {
      props.onChange?.(value);
    } else if (!props.value?.includes(value)) {
      props.onChange?.([...(props.value ?? []), value]);
    }
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      isMeant.current ||= isOpen.current;
    }
    if (event.key === 'Tab') {
      event.stopPropagation();
      if (isMeant.current && marked.current !== null) {
        take(marked.current);
      }
      isMeant.current = false;
    }
  };
  const { multiple, value, onChange, ...rest } = props;
  return (
    <Select<V | V[] | null, Option<V>>
      {...(rest as object)}
      mode={multiple ? 'multiple' : undefined}
      value={value}
      options={options}
      optionRender={({ data }) => (
        <>
          {data.label}
          {data.hint && <small className={styles.hint}>{data.hint}</small>}
        </>
      )}
      showSearch={{
        optionFilterProp: 'label',
        onSearch: (text) => {
          isMeant.current = text !== '';
        },
      }}
      onActive={(active) => {
        marked.current = active as V | null;
      }}
      onSelect={() => {
        isMeant.current = false;
      }}
      onOpenChange={(open) => {
        isOpen.current = open;
      }}
      onInputKeyDown={onKey}
      onChange={(chosen) => (onChange as ((chosen: unknown) => void) | undefined)?.(chosen)}
    />
  );
}
