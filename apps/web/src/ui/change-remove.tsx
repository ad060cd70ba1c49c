import { t } from '@mailbag/core/words';
import { Button } from './button';
import { Confirm } from './confirm';
import { Row } from './layout';

/** What can be done with one thing of a list: change it, or remove it after a question. Without `remove` it stays. */
export function ChangeRemove({
  onChange,
  remove,
}: {
  onChange: () => void;
  remove: { name: string; text: string; onYes: () => void } | null;
}) {
  return (
    <Row>
      <Button changes small onPress={onChange}>{t`Change`}</Button>
      {remove && (
        <Confirm title={t`Remove ${remove.name}?`} text={remove.text} yes={t`Remove it`} onYes={remove.onYes}>
          <Button changes small look="danger">{t`Remove`}</Button>
        </Confirm>
      )}
    </Row>
  );
}
