import { Button, Modal, Table } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useBeginFirstProof } from '../first/useBeginFirstProof';

const KEYS: [string, [string, string][]][] = [
  [
    'Anywhere',
    [
      ['Ctrl K', 'find a step, a desk or a routine'],
      ['? or F1', 'these keys'],
    ],
  ],
  [
    'On the sheet',
    [
      ['↑ ↓', 'move through the lines; the table follows'],
      ['Enter', 'a new line'],
      ['Tab / Shift Tab', 'indent, outdent; in a suggestion: take it'],
      ['Ctrl Space', 'suggestions'],
      ['Alt ↑ / Alt ↓', 'move the line with its block, or all selected ones, up, down'],
      ['Shift Alt ↓', 'duplicate the line with its block'],
      ['Shift Ctrl K', 'delete the line'],
      ['Ctrl /', 'make the lines remarks, or lines again'],
      ['Ctrl F', 'find and replace; F3 goes to the next'],
      ['Alt G', 'go to a line'],
      ['Shift Ctrl [ / ]', 'fold the block, unfold it'],
      ['F2', 'the next blank or number of the line'],
      ['Ctrl Z / Ctrl Y', 'undo, redo'],
      ['Alt S', 'all steps by family'],
      ['Alt V', 'versions'],
      ['Esc', 'leave the sheet'],
    ],
  ],
  [
    'Beside the sheet',
    [
      ['Alt 1', 'the table'],
      ['Alt 2 / 3 / 4 / 5', 'why it works, when, what would, what breaks it'],
    ],
  ],
  [
    'At the table',
    [
      ['Alt → / Alt ←', 'one step on, one step back'],
      ['Alt A', 'another spectator'],
      ['Alt W', 'the worst case'],
      ['← →', 'in the strands: one column back, one on'],
    ],
  ],
];

export function Shortcuts({ opened, open, close }: { opened: boolean; open: () => void; close: () => void }) {
  const beginFirst = useBeginFirstProof();
  useHotkeys([['shift+?', open]]);
  useHotkeys([['F1', open]], []);
  return (
    <Modal opened={opened} onClose={close} title="Keys" size="md">
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => {
          close();
          beginFirst();
        }}
      >
        A first proof, in six steps
      </Button>
      {KEYS.map(([where, keys]) => (
        <section key={where}>
          <h3>{where}</h3>
          <Table verticalSpacing={4}>
            <Table.Tbody>
              {keys.map(([key, what]) => (
                <Table.Tr key={key}>
                  <Table.Td w={150}>
                    <kbd className="key">{key}</kbd>
                  </Table.Td>
                  <Table.Td>{what}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </section>
      ))}
    </Modal>
  );
}
