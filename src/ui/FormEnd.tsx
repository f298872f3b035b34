import { Button } from './Button';

/** The end of a form in a panel: leave it, or do what it says. */
export function FormEnd({
  cancel,
  act,
  busy,
  onCancel,
}: {
  readonly cancel: string;
  readonly act: string;
  readonly busy: boolean;
  readonly onCancel: () => void;
}) {
  return (
    <div className="flex justify-end gap-3">
      <Button onClick={onCancel}>{cancel}</Button>
      <Button look="act" type="submit" disabled={busy}>
        {act}
      </Button>
    </div>
  );
}
