import { RecordForm } from './RecordForm';
import { RecordSheet } from './RecordSheet';
import { useRecord } from './queries';

interface Props {
  chosen: number | null;
  making: boolean;
  editing: boolean;
  /** Where somebody pointed on the board, for a new one. */
  draft?: string | null;
  onClose: () => void;
  onEdit: () => void;
  onOpen: (id: number) => void;
}

/** The chosen record, or the form for a new one or a change: what stands beside a page. */
export function RecordSide(props: Props) {
  const record = useRecord(props.chosen);
  if (props.making) {
    return (
      <RecordForm
        key={'new' + (props.draft ?? '')}
        pointed={props.draft ?? null}
        onClose={props.onClose}
        onSaved={props.onOpen}
      />
    );
  }
  if (props.chosen === null) {
    return null;
  }
  const id = props.chosen;
  return props.editing && record.data ? (
    <RecordForm
      key={id}
      before={record.data}
      onClose={() => props.onOpen(id)}
      onSaved={props.onOpen}
    />
  ) : (
    <RecordSheet
      key={id}
      id={id}
      query={record}
      onClose={props.onClose}
      onEdit={props.onEdit}
      onOpen={props.onOpen}
    />
  );
}
