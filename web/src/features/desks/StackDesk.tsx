import { Button, Group } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { routinesQuery } from '../../api/queries';
import type { DeskProps } from './DesksPage';
import { Count, DeskFrame, DeskTable, Parts, Picture, Rows, SendButton, Told, Words } from './parts';
import { useDesk } from './useDesk';

export function StackDesk({ opening, title, about }: DeskProps<'stack'>) {
  const desk = useDesk('stack', opening);
  const { asks, set, answer } = desk;
  const [last] = useLocalStorage<number | null>({ key: 'last-bench', defaultValue: null });
  const { data: routines = [] } = useQuery(routinesQuery());
  const open = routines.find((routine) => routine.id === last);
  const rows = asks.constraints ?? [];
  const form = (
    <>
      <Rows label="What the stack must be" rows={7} value={rows} onValue={(constraints) => set({ constraints })} error={desk.troubleOf('constraints')} />
      {answer?.faults.map((fault) => (
        <p key={`${fault.line} ${fault.column}`} className="trouble" role="alert">
          Line {fault.line}: {fault.message} Expected {fault.expected}. {fault.remedy}.
        </p>
      ))}
      <details>
        <summary>Sentences there are</summary>
        <ul className="kinds">
          {(answer?.kinds ?? []).map((kind) => (
            <li key={kind.example}>
              <button type="button" title={kind.about} onClick={() => set({ constraints: [...rows.filter(Boolean), kind.example] })}>
                {kind.example}
              </button>
            </li>
          ))}
        </ul>
      </details>
      <Rows
        label="Cards that lie already"
        placeholder="one a line, or CSV: position, card"
        rows={2}
        value={(asks.placed ?? '').split('\n')}
        onValue={(placed) => set({ placed: placed.join('\n') })}
        error={desk.troubleOf('placed')}
      />
      {open && (
        <Button size="compact-xs" variant="default" onClick={() => set({ placed: open.text })}>
          Take the set-up of {open.title}
        </Button>
      )}
      <div className="pair">
        <Count
          label="Cards in the stack"
          description="0: as many as are spoken of"
          value={asks.cards}
          onValue={(cards) => set({ cards })}
          error={desk.troubleOf('cards')}
        />
        <Count label="Packs" description="shuffled together" value={asks.packs} onValue={(packs) => set({ packs })} error={desk.troubleOf('packs')} />
      </div>
      <div className="pair">
        <Count label="Jokers" value={asks.jokers} onValue={(jokers) => set({ jokers })} error={desk.troubleOf('jokers')} />
        <Words
          label="Values left out"
          placeholder="two, three"
          value={(asks.without ?? []).join(', ')}
          onValue={(words) =>
            set({
              without: words
                .split(',')
                .map((word) => word.trim())
                .filter(Boolean),
            })
          }
          error={desk.troubleOf('without')}
        />
      </div>
      <Words label="A new pack lies so" value={asks.new_pack} onValue={(new_pack) => set({ new_pack })} error={desk.troubleOf('new_pack')} />
    </>
  );
  const assembly = answer?.assembly;
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && answer.faults.length > 0 && (
        <Told tone="plain">
          Without line {answer.faults.map((fault) => fault.line).join(', ')}, which cannot be read yet{answer.arrangements.length ? ':' : '.'}
        </Told>
      )}
      {answer && answer.arrangements.length === 0 && (answer.clash.length > 0 || !answer.settled) && (
        <Told tone="broken">
          {answer.settled ? (
            <>
              <b>There is no such stack.</b> {answer.clash_is_smallest ? 'The fewest lines that clash:' : 'These lines clash:'}
              <ul>
                {answer.clash.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </>
          ) : (
            <>Neither found nor shown impossible within the budget.</>
          )}
        </Told>
      )}
      {answer && !answer.settled && (
        <Button size="compact-xs" variant="default" onClick={() => desk.longer()}>
          Search longer
        </Button>
      )}
      {answer && answer.arrangements.length > 0 && (
        <>
          <Picture desk={desk} name="The stack, from the top">
            <Group gap={6}>
              <Button size="compact-sm" variant="default" onClick={() => set({ seed: asks.seed + 1 })}>
                Another one
              </Button>
              {answer.send && <SendButton send={answer.send} />}
            </Group>
          </Picture>
          <Parts
            parts={{
              'As text': <pre className="as-text">{answer.arrangements[0]?.join('\n')}</pre>,
              ...(assembly
                ? {
                    'From new-pack order': (
                      <>
                        <p className="quiet">
                          {assembly.blocks.length} blocks, each put under the ones before; or {assembly.passes.length} times through the pack, pushing out the
                          cards of the stack as they come.
                        </p>
                        <DeskTable
                          name="From new-pack order"
                          head={['Cards', 'From', 'To', 'How']}
                          rows={assembly.blocks.map((block) => [
                            block.cards,
                            block.first,
                            block.cards > 1 ? block.last : '',
                            block.cards === 1 ? '' : block.reverses ? 'dealt singly' : 'lifted as they lie',
                          ])}
                        />
                      </>
                    ),
                    'From a shuffled pack': (
                      <>
                        <p className="quiet">
                          Deal the pack face up onto {assembly.piles} piles by the first number, other cards aside; turn each pile over and put pile 1 on pile 2
                          and so on. Deal again by the second number, and gather the same way.
                        </p>
                        <DeskTable name="From a shuffled pack" head={['Card', 'First deal: pile', 'Second deal: pile']} rows={assembly.deals} />
                      </>
                    ),
                  }
                : {}),
            }}
          />
        </>
      )}
    </DeskFrame>
  );
}
