import { Button, Checkbox, Select } from '@mantine/core';
import type { DeskProps } from './DesksPage';
import { Count, DeskFrame, DeskTable, Parts, Picture, Rows, SendButton, Told, Words } from './parts';
import { useDesk } from './useDesk';

export function MixDesk({ opening, title, about }: DeskProps<'mix'>) {
  const desk = useDesk('mix', opening);
  const { asks, set, answer } = desk;
  const chain = asks.chain ?? [];
  const moves = asks.moves ?? [];
  const names = answer?.names ?? [];
  const add = (list: string[], name: string) => [...list.filter(Boolean), name.replace(' n ', ' 3 ').replace(/ n$/, ' 5')];
  const form = (
    <>
      <Count label="Cards" value={asks.cards} onValue={(cards) => set({ cards })} error={desk.troubleOf('cards')} />
      <Rows label="The chain, a mix or a line a row" rows={4} value={chain} onValue={(rows) => set({ chain: rows })} error={desk.troubleOf('chain')} />
      <Select
        size="xs"
        aria-label="Add a mix to the chain"
        placeholder="Add a mix…"
        searchable
        data={names}
        value={null}
        onChange={(name) => name && set({ chain: add(chain, name) })}
      />
      <h2>Shortest chain</h2>
      <Rows label="made of these mixes" rows={3} value={moves} onValue={(rows) => set({ moves: rows })} error={desk.troubleOf('moves')} />
      <Select
        size="xs"
        aria-label="Add a mix to search with"
        placeholder="Add a mix to search with…"
        searchable
        data={names}
        value={null}
        onChange={(name) => name && set({ moves: add(moves, name) })}
      />
      <div className="pair">
        <Words
          label="that does"
          description="identity, reversal, 5 to 18, or 5 and 18 together"
          value={asks.wanted}
          onValue={(wanted) => set({ wanted })}
          error={desk.troubleOf('wanted')}
        />
        <Count label="of at most" description="so many mixes" value={asks.longest} onValue={(longest) => set({ longest })} error={desk.troubleOf('longest')} />
      </div>
      <Checkbox
        size="xs"
        label="Reckon how many orders these mixes can make"
        checked={asks.group}
        onChange={(event) => set({ group: event.currentTarget.checked })}
      />
    </>
  );
  const search = answer?.search;
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && (
        <>
          {search && (
            <Told tone={search.chain ? 'sure' : 'plain'}>
              {search.chain ? (
                <>
                  Shortest: <b>{search.chain.join(' → ')}</b>.{' '}
                  <Button size="compact-xs" variant="default" onClick={() => set({ chain: search.chain ?? [] })}>
                    Put it in the chain
                  </Button>
                </>
              ) : search.is_complete ? (
                <>No chain of at most {search.tried} of these mixes does it: every one was covered.</>
              ) : (
                <>
                  None of at most {search.tried} mixes; longer chains were not settled within the budget.{' '}
                  <Button size="compact-xs" variant="default" onClick={() => desk.longer()}>
                    Search longer
                  </Button>
                </>
              )}
              <small> {search.seen.toLocaleString('en')} orders seen.</small>
            </Told>
          )}
          {answer.group && (
            <Told tone="plain">
              These mixes make {answer.group.size ? <b>{answer.group.size}</b> : 'how many'} orders: {answer.group.about}.
            </Told>
          )}
          <div className="side-by-side">
            <Picture desk={desk} name="Before and after">
              {answer.send && <SendButton send={answer.send} />}
            </Picture>
            <div>
              <h2>What it does</h2>
              <dl className="facts">
                <dt>Keeps</dt>
                <dd>{(answer.ways.length ? answer.always : answer.kept).join('; ') || 'none of the orders known here'}</dd>
                <dt>Comes back after</dt>
                <dd className="figures">{answer.order.toLocaleString('en')} times</dd>
                <dt>Stay where they are</dt>
                <dd className="figures">{answer.fixed.length === answer.cards ? 'all' : answer.fixed.join(', ') || 'none'}</dd>
                <dt>Stock kept</dt>
                <dd className="figures">
                  {answer.top_stock} on top, {answer.bottom_stock} at the bottom
                </dd>
                <dt>Parity</dt>
                <dd>{answer.even ? 'even' : 'odd'}</dd>
                {answer.turned > 0 && (
                  <>
                    <dt>Turned over</dt>
                    <dd className="figures">{answer.turned} cards</dd>
                  </>
                )}
              </dl>
              <Parts
                parts={{
                  Cycles: (
                    <p className="cycles figures">
                      {answer.cycles
                        .filter((cycle) => cycle.length > 1)
                        .map((cycle) => `(${cycle.join(' ')})`)
                        .join(' ') || 'none'}
                    </p>
                  ),
                  Places: <DeskTable name="Places" head={['From', 'To']} rows={answer.places.map((to, i) => [i + 1, to])} />,
                  ...(answer.ways.length
                    ? {
                        Choices: (
                          <DeskTable name="Choices" head={['When', 'It keeps']} rows={answer.ways.map((way) => [way.choices, way.kept.join('; ') || '—'])} />
                        ),
                      }
                    : {}),
                }}
              />
            </div>
          </div>
        </>
      )}
    </DeskFrame>
  );
}
