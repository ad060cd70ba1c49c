import { plural, t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { FlaskConical } from 'lucide-react';
import { useState } from 'react';
import { DialogTrigger, Heading, Modal } from 'react-aria-components';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import type { Trial } from '../../features/trial/trial-pane';
import { Button } from '../../ui/button';
import { Box, Veil } from '../../ui/dialog';
import { Toggled } from '../../ui/field';
import { Row } from '../../ui/layout';

/** Asks how the copies of some records are to be tried. */
export function TrialButton({ work: { settle, plan }, trial, indexes }: { work: MailingWork; trial: Trial; indexes: readonly number[] }) {
  const [mailed, setMailed] = useState(false);
  const { data: account } = useQuery(queries.account());
  const own = account?.account?.email ?? '';
  return (
    <DialogTrigger>
      <Button changes small isDisabled={indexes.length === 0 || trial.make.isPending}>
        <FlaskConical size={13} />
        {trial.make.isPending ? t`Making …` : t`Trial run …`}
      </Button>
      <Veil isDismissable>
        <Modal>
          <Box>
            {({ close }) => (
              <>
                <Heading slot="title" level={2}>{t`Trial run of ${plural(indexes.length, 'record')}`}</Heading>
                <div>{t`The copies of these records are made just as a batch would make them, as files for you to open. The ledger knows nothing of them, no number is used up, and nobody else gets mail.`}</div>
                {plan.message.mailed && <Toggled label={t`Mail them too, to ${own} alone`} value={mailed} onChange={setMailed} />}
                <Row style={{ justifyContent: 'flex-end' }}>
                  <Button onPress={close}>{t`Cancel`}</Button>
                  <Button
                    look="go"
                    onPress={() => {
                      close();
                      void settle().then(() => trial.make.mutate({ indexes, mailed: mailed && plan.message.mailed }));
                    }}
                  >{t`Make them`}</Button>
                </Row>
              </>
            )}
          </Box>
        </Modal>
      </Veil>
    </DialogTrigger>
  );
}
