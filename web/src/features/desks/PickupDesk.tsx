import { SegmentedControl } from '@mantine/core';
import type { Schemas } from '../../api/client';
import type { DeskProps } from './DesksPage';
import { Count, Counts, DeskFrame, DeskTable, Parts, Picture, SendButton, Told, ordinal } from './parts';
import { useDesk } from './useDesk';

export function PickupDesk({ opening, title, about }: DeskProps<'pickup'>) {
  const desk = useDesk('pickup', opening);
  const { asks, set, answer } = desk;
  const form = (
    <>
      <div className="pair">
        <Count label="Cards" value={asks.cards} onValue={(cards) => set({ cards })} error={desk.troubleOf('cards')} />
        <Count label="Wanted place" value={asks.wanted} onValue={(wanted) => set({ wanted })} error={desk.troubleOf('wanted')} />
      </div>
      <div className="pair">
        <Count label="Piles" value={asks.piles} onValue={(piles) => set({ piles, answers: [], gathered: [] })} error={desk.troubleOf('piles')} />
        <Count label="Rounds" value={asks.rounds} onValue={(rounds) => set({ rounds, answers: [] })} error={desk.troubleOf('rounds')} />
      </div>
      <SegmentedControl aria-label="Dealt" size="xs" fullWidth data={['face up', 'face down']} value={asks.dealt} onChange={(dealt) => set({ dealt })} />
      <SegmentedControl
        aria-label="What they tell"
        size="xs"
        fullWidth
        data={[
          { value: 'table', label: 'they tell the pile' },
          { value: 'stack', label: 'they put them together' },
        ]}
        value={asks.told}
        onChange={(told) => set({ told, answers: [] })}
      />
      <Counts
        label={asks.told === 'table' ? 'Piles they told, round by round' : 'Places of their pile in the stack, from the top'}
        description="to see where their card is"
        value={asks.answers ?? []}
        onValue={(answers) => set({ answers })}
        error={desk.troubleOf('answers')}
      />
      {asks.told === 'table' && (
        <Counts
          label="You gather them so, from top to bottom"
          description="for the answers above; empty: 1, 2, 3 …"
          value={asks.gathered ?? []}
          onValue={(gathered) => set({ gathered })}
          error={desk.troubleOf('gathered')}
        />
      )}
    </>
  );
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && (
        <>
          <Told tone={answer.ways.length ? 'sure' : 'plain'}>
            {answer.ways[0] ? (
              <>
                For the <b>{ordinal(answer.wanted)}</b> place their pile goes <b>{answer.ways[0].words.join(', then ')}</b>.
              </>
            ) : (
              <>No way of putting the piles together is sure to bring it to the {ordinal(answer.wanted)} place.</>
            )}{' '}
            {answer.formula && <>It lands at {answer.formula}, where s, t, u … is the place of their pile from the top.</>}
          </Told>
          {answer.answered && (
            <Told>
              After these answers it is <b>{answer.answered.lands.map(ordinal).join(' or ')}</b>.
            </Told>
          )}
          <Picture desk={desk} name="Round by round">
            {answer.send && <SendButton send={answer.send} />}
          </Picture>
          <Parts
            parts={{
              Ways: <DeskTable name="Ways" head={['Their pile, round by round', 'Lands']} rows={[...answer.ways, ...answer.nearly].map(way)} />,
              'Every place': (
                <>
                  <DeskTable name="Every place" head={['Lands', 'Their pile, round by round']} rows={answer.table.map((place) => way(place).reverse())} />
                  {answer.unreached.length > 0 && <p className="quiet">No way is sure for {answer.unreached.join(', ')}.</p>}
                </>
              ),
              'Other packs': (
                <>
                  <p className="quiet">
                    {answer.fewest_rounds === null
                      ? 'No number of rounds that was tried makes it sure.'
                      : `Sure from ${answer.fewest_rounds} round${answer.fewest_rounds > 1 ? 's' : ''} on.`}
                  </p>
                  <DeskTable
                    name="Other packs"
                    head={['Cards', 'Places at best', 'with their pile in the middle']}
                    rows={answer.sizes.map((size) => [
                      size.cards === asks.cards ? <b>{size.cards}</b> : size.cards,
                      size.fewest,
                      size.middle <= 4 ? size.middle_lands.map(ordinal).join(' or ') : `${size.middle} places`,
                    ])}
                  />
                </>
              ),
            }}
          />
        </>
      )}
    </DeskFrame>
  );
}

const way = (place: Schemas['Place']) => [place.words.join(', '), place.lands.map(ordinal).join(' or ')];
