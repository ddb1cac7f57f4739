import { Button, Chip, Group, Select } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { useState } from 'react';
import type { Send } from '../../api/client';
import type { DeskProps } from './DesksPage';
import { Count, Counts, DeskFrame, DeskTable, Parts, Picture, Rows, SendButton, Told, Words, ordinal } from './parts';
import { useDesk } from './useDesk';

const PACKS = [
  ['english', 'English'],
  ['spanish', 'Spanish'],
  ['spanish-40', 'Spanish, regional pack of 40'],
  ['french', 'French'],
  ['german', 'German'],
  ['german-32', 'German, regional pack of 32'],
  ['italian', 'Italian'],
  ['italian-40', 'Italian, regional pack of 40'],
].map(([value, label]) => ({ value: value ?? '', label: label ?? '' }));

const REVEALS: Record<string, string> = { last: 'the last card dealt', next: 'the next card', tabled: 'the card tabled' };

export function SpellDesk({ opening, title, about }: DeskProps<'spell'>) {
  const desk = useDesk('spell', opening);
  const { asks, set, answer } = desk;
  const [picked, setPicked] = useState<Send | null>(null);
  const own = (asks.names ?? '').trim() !== '';
  const phrasings = asks.phrasings?.length ? asks.phrasings : (answer?.phrasings.map((one) => `${one.awkward ? '~' : ''}${one.template}`) ?? []);
  const form = (
    <>
      <Counts
        label="Wanted position, from the top"
        description="or several, or a run such as 11 to 13"
        value={asks.wanted ?? []}
        onValue={(wanted) => set({ wanted })}
        error={desk.troubleOf('wanted')}
      />
      <Rows
        label="Names, one a line, or a CSV"
        placeholder="empty: the cards of the pack"
        rows={3}
        value={(asks.names ?? '').split('\n')}
        onValue={(names) => set({ names: names.join('\n') })}
        error={desk.troubleOf('names')}
      />
      {!own && (
        <Select
          size="xs"
          label="Language"
          data={PACKS}
          value={asks.pack}
          allowDeselect={false}
          onChange={(pack) => set({ pack: pack ?? 'english', phrasings: [] })}
        />
      )}
      <Chip.Group multiple value={asks.reveals ?? []} onChange={(reveals) => set({ reveals })}>
        <Group gap={6} role="group" aria-labelledby="revealed-as">
          <span id="revealed-as" className="label">
            Revealed as
          </span>
          {Object.entries(REVEALS).map(([reveal, words]) => (
            <Chip key={reveal} value={reveal} size="xs" variant="outline">
              {words}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      {desk.troubleOf('reveals') && <p className="trouble">{desk.troubleOf('reveals')}</p>}
      {asks.reveals?.includes('tabled') && (
        <Count label="Cards in the packet" value={asks.packet} onValue={(packet) => set({ packet })} error={desk.troubleOf('packet')} />
      )}
      <Rows
        label="Phrasings"
        description="~ in front marks an awkward one"
        rows={5}
        value={phrasings}
        onValue={(rows) => set({ phrasings: rows })}
        error={desk.troubleOf('phrasings')}
      />
      {!own && (
        <details>
          <summary>Other words for values and suits</summary>
          <Words
            label="Suits, with commas"
            placeholder="those of the language"
            value={asks.suits}
            onValue={(suits) => set({ suits })}
            error={desk.troubleOf('suits')}
          />
          <Words label="Values from the ace up, with commas" placeholder="those of the language" value={asks.values} onValue={(values) => set({ values })} />
        </details>
      )}
    </>
  );
  const wanted = (asks.wanted ?? []).map(ordinal).join(' or ');
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && (
        <>
          <Told tone={answer.unreached.length ? 'plain' : 'sure'}>
            <b>
              {answer.scripts.length} of {answer.rows.length}
            </b>{' '}
            come to the {wanted} place.
            {answer.unreached.length > 0 && <> Keep out: {shortened(answer.unreached)}.</>}
          </Told>
          <Picture desk={desk} name="Coverage">
            {picked ? (
              <SendButton key={picked.label} send={picked} label={`Write ${picked.label.replace(/, \d+\w+$/, '')} into a routine`} opened />
            ) : (
              answer.send && <SendButton send={answer.send} />
            )}
          </Picture>
          <Parts
            parts={{
              'What to say': (
                <DeskTable
                  name="What to say"
                  head={['Name', 'Spell', 'Letters', 'Then', '']}
                  rows={answer.scripts.map((script) => [
                    script.name,
                    <span className={script.awkward ? 'awkward' : ''}>
                      “{script.spelled}”{script.awkward && <small> awkward</small>}
                    </span>,
                    script.letters,
                    REVEALS[script.reveal],
                    // One menu for all: a menu in every row is slow to draw.
                    <button type="button" className="pick" aria-label={`Write ${script.name} into a routine`} onClick={() => setPicked(script.send)}>
                      →
                    </button>,
                  ])}
                />
              ),
              'The rule': (
                <>
                  <DeskTable
                    name="The rule"
                    head={['Letters', 'Names', 'Such as', 'Spell']}
                    rows={answer.rule.map((rule) => [rule.letters, rule.names, rule.example, rule.script ?? <b>keep out</b>])}
                  />
                  {answer.exceptions.length > 0 && <p className="quiet">By letters alone not right for {shortened(answer.exceptions)}.</p>}
                  <p className="quiet">
                    {answer.fewest_is_least ? 'Fewest ways to say it' : 'A few ways to say it'}: {answer.fewest.join('; ')}.
                  </p>
                </>
              ),
              Letters: (
                <>
                  <DeskTable
                    name="Letters of every phrasing"
                    head={['Name', ...answer.phrasings.map((one) => one.example)]}
                    rows={answer.rows.map((row) => [row.name, ...row.counts.map((count) => <span className={count.comes ? 'hit' : ''}>{count.letters}</span>)])}
                  />
                  <p className="quiet">{answer.counted}</p>
                </>
              ),
              'Other positions': (
                <DeskTable
                  name="Other positions"
                  head={['Position', 'Names that come there', 'without an awkward phrasing']}
                  rows={answer.best.map((one) => [ordinal(one.position), one.reached, one.natural])}
                />
              ),
            }}
          >
            <Button size="compact-sm" variant="subtle" color="gray" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
              Print the drill sheet
            </Button>
          </Parts>
          <section className="print-only" aria-hidden>
            <h1>To the {wanted} place</h1>
            <ol className="drill">
              {answer.scripts.map((script) => (
                <li key={script.name}>
                  <b>{script.name}</b> “{script.spelled}”, {REVEALS[script.reveal]}
                </li>
              ))}
            </ol>
            {answer.unreached.length > 0 && <p>Keep out: {answer.unreached.join(', ')}.</p>}
          </section>
        </>
      )}
    </DeskFrame>
  );
}

function shortened(names: string[]): string {
  return names.length > 8 ? `${names.slice(0, 8).join(', ')} and ${names.length - 8} more` : names.join(', ');
}
