import { useId, useState } from 'react';
import { Refused, mailCode, mailCopies } from './api';
import { Asked, Button, FaultLine, Input, Quiet, Words } from './styles';
import type { Language, Say } from './words';

/** Where it stands: what is asked for, whether it is on its way, and what is wrong. */
interface State {
  step: 'closed' | 'address' | 'code';
  isBusy: boolean;
  fault: 'mailWrong' | 'mailCodeWrong' | null;
  sentTo: string;
}

/** Has the copies mailed to the visitor or to somebody else, once a code has shown that the visitor's own address is theirs. */
export function MailCopies({ receipt, language, say }: { receipt: string; language: Language; say: Say }) {
  const [state, setState] = useState<State>({ step: 'closed', isBusy: false, fault: null, sentTo: '' });
  const [own, setOwn] = useState('');
  const [code, setCode] = useState('');
  const [to, setTo] = useState('');
  const [ownId, codeId, toId] = [useId(), useId(), useId()];
  const set = (next: Partial<State>): void => setState((before) => ({ ...before, ...next }));
  const doing = async (work: () => Promise<Partial<State>>): Promise<void> => {
    set({ isBusy: true, fault: null, sentTo: '' });
    try {
      set({ isBusy: false, ...(await work()) });
    } catch (error) {
      set({ isBusy: false, fault: error instanceof Refused && error.code === 'intake-code-wrong' ? 'mailCodeWrong' : 'mailWrong' });
    }
  };
  if (state.step === 'closed') return <Button onClick={() => set({ step: 'address' })}>{say('mailOpen')}</Button>;
  const ask = (): Promise<void> =>
    doing(async () => {
      await mailCode(receipt, own.trim(), language);
      setTo(own.trim());
      return { step: 'code' };
    });
  const send = (): Promise<void> =>
    doing(async () => {
      await mailCopies(receipt, code.trim(), to.trim(), language);
      return { sentTo: to.trim() };
    });
  return (
    <form
      noValidate
      style={{ display: 'grid', gap: 16 }}
      onSubmit={(event) => {
        event.preventDefault();
        void (state.step === 'address' ? ask() : send());
      }}
    >
      {state.step === 'address' ? (
        <Asked>
          <Words htmlFor={ownId}>{say('laterAddress')}</Words>
          <Input id={ownId} type="email" autoComplete="email" autoFocus value={own} onChange={({ target }) => setOwn(target.value)} />
        </Asked>
      ) : (
        <>
          <Quiet role="status">{say('mailCodeSent', { address: own.trim() })}</Quiet>
          <Asked>
            <Words htmlFor={codeId}>{say('mailCode')}</Words>
            <Input
              id={codeId}
              inputMode="numeric"
              autoComplete="one-time-code"
              autoFocus
              value={code}
              aria-invalid={state.fault === 'mailCodeWrong'}
              onChange={({ target }) => setCode(target.value)}
            />
          </Asked>
          <Asked>
            <Words htmlFor={toId}>{say('mailTo')}</Words>
            <Input id={toId} type="email" autoComplete="off" value={to} onChange={({ target }) => setTo(target.value)} />
          </Asked>
        </>
      )}
      {state.fault && <FaultLine role="alert">{say(state.fault)}</FaultLine>}
      {state.sentTo && <Quiet role="status">{say('mailSent', { address: state.sentTo })}</Quiet>}
      <Button
        type="submit"
        disabled={state.isBusy || (state.step === 'address' ? own.trim() === '' : code.trim() === '' || to.trim() === '')}
      >
        {say(state.step === 'address' ? 'mailAskCode' : 'mailSend')}
      </Button>
    </form>
  );
}
