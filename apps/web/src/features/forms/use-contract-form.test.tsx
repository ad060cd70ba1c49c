/** @jest-environment ./testing/browser-environment.mjs */
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { TextInput } from '../../ui/field';
import { useContractForm } from './use-contract-form';

const sent: object[] = [];

/** Who mail comes from, with the fields of a real form. */
function Sender({ showsAddress = true }: { showsAddress?: boolean }) {
  const { values, set, fault, submit } = useContractForm('SenderRequest', { serverId: 1, name: '', address: '', replyTo: '' }, (form) => ({
    ...form,
    replyTo: form.replyTo.trim() || null,
  }));
  return (
    <form onSubmit={submit((body) => sent.push(body))}>
      <TextInput label="Display name" value={values.name} onChange={(name) => set({ name })} error={fault('name')} />
      {showsAddress && (
        <TextInput label="Address" value={values.address} onChange={(address) => set({ address })} error={fault('address')} />
      )}
      <button type="submit">Save</button>
    </form>
  );
}
const field = (label: string): HTMLInputElement => screen.getByLabelText(label);

beforeEach(() => void (sent.length = 0));

test('what the contract refuses is said at its field, which takes the focus; put right, it is sent as the contract has it', async () => {
  const user = userEvent.setup();
  render(<Sender />);
  expect(screen.queryByText(/Give the name/)).toBeNull();
  await user.type(field('Address'), 'office');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await screen.findByText('Give the name that recipients see.');
  expect(screen.getByText('The sender needs an e-mail address.')).toBeTruthy();
  await waitFor(() => expect(document.activeElement).toBe(field('Display name')));
  expect(sent).toEqual([]);

  await user.type(field('Display name'), 'Plots');
  await waitFor(() => expect(screen.queryByText('Give the name that recipients see.')).toBeNull());
  await user.type(field('Address'), '@larkmere.example');
  await waitFor(() => expect(field('Address').getAttribute('aria-invalid')).toBeNull());
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent).toEqual([{ serverId: 1, name: 'Plots', address: 'office@larkmere.example', replyTo: null }]));
});

test('who presses twice sends once', async () => {
  const user = userEvent.setup();
  render(<Sender />);
  await user.type(field('Display name'), 'Plots');
  await user.type(field('Address'), 'office@larkmere.example');
  const save = screen.getByRole('button', { name: 'Save' });
  // Both before the first has been judged.
  fireEvent.click(save);
  fireEvent.click(save);
  await waitFor(() => expect(sent).not.toEqual([]));
  expect(sent).toHaveLength(1);
});

test('a fault that no field shows is left to the server', async () => {
  const user = userEvent.setup();
  render(<Sender showsAddress={false} />);
  await user.type(field('Display name'), 'Plots');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent).toEqual([{ serverId: 1, name: 'Plots', address: '', replyTo: null }]));
});
