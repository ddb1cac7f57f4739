import { Button, SegmentedControl } from '@mantine/core';
import type { Schemas } from '../../api/client';
import type { DeskProps } from './DesksPage';
import { Counts, DeskFrame, DeskTable, Parts, Picture, SendButton, Told, Words, percent } from './parts';
import { useDesk } from './useDesk';

export function NarrowDesk({ opening, title, about }: DeskProps<'narrow'>) {
  const desk = useDesk('narrow', opening);
  const { asks, set, answer } = desk;
  const objects = asks.objects ?? [];
  const patterns = asks.patterns ?? [];
  const put = (stage: number, pattern: string) => set({ patterns: objects.map((_, i) => (i === stage ? pattern : (patterns[i] ?? ''))) });
  const form = (
    <>
      <Counts
        label="Objects"
        description="several numbers for stages: packets, then cards"
        value={objects}
        onValue={(now) => set({ objects: now, patterns: [] })}
        error={desk.troubleOf('objects')}
      />
      <SegmentedControl
        aria-label="Targets"
        size="xs"
        fullWidth
        data={[
          { value: '1', label: 'one target' },
          { value: '2', label: 'two: either will do' },
        ]}
        value={String(asks.targets)}
        onChange={(targets) => set({ targets: Number(targets) })}
      />
      {objects.map((many, stage) => (
        <Words
          key={stage}
          label={objects.length > 1 ? `Point to, stage ${stage + 1} (${many})` : 'Point to'}
          placeholder={answer?.stages[stage] ? `the fairest: ${answer.stages[stage].points.join(', ')}` : 'the fairest'}
          value={patterns[stage] ?? ''}
          onValue={(pattern) => put(stage, pattern)}
          error={stage === 0 ? desk.troubleOf('patterns') : undefined}
        />
      ))}
      <h2>What you say</h2>
      <Words label="to ask" description="{count} and {left} are filled in" value={asks.ask} onValue={(ask) => set({ ask })} error={desk.troubleOf('ask')} />
      <Words label="when the pointed ones stay" value={asks.keep} onValue={(keep) => set({ keep })} error={desk.troubleOf('keep')} />
      <Words label="when they go" value={asks.go} onValue={(go) => set({ go })} error={desk.troubleOf('go')} />
      <Words label="when one is left" value={asks.end} onValue={(end) => set({ end })} error={desk.troubleOf('end')} />
    </>
  );
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && (
        <>
          <Told>
            <b>{answer.whole.least === answer.whole.most ? answer.whole.least : `${answer.whole.least} to ${answer.whole.most}`} questions</b>,{' '}
            {answer.whole.mean_number.toFixed(2)} on average; in {percent(answer.whole.one_meaning_share)} of all runs pointing means the same throughout.
          </Told>
          <Picture desk={desk} name="Every branch">
            {answer.send && <SendButton send={answer.send} />}
          </Picture>
          <Parts
            parts={{
              'What to say': (
                <DeskTable
                  name="What to say"
                  head={['Stage', 'After', 'Left', 'Say', 'Of all runs']}
                  rows={answer.tree.map((node) => [
                    node.stage,
                    branch(node, answer.tree),
                    node.left,
                    node.says.map((line, i) => (
                      <span key={i} className="line">
                        “{line}”
                      </span>
                    )),
                    node.share_text,
                  ])}
                />
              ),
              'Other patterns': (
                <DeskTable
                  name="Other patterns"
                  head={['Objects', 'Point to', 'Questions', 'on average', 'One meaning', '']}
                  rows={answer.ranked.flatMap((stage, s) =>
                    stage.map((pattern) => [
                      pattern.objects,
                      pattern.points.join(', '),
                      pattern.least === pattern.most ? pattern.least : `${pattern.least} to ${pattern.most}`,
                      pattern.mean_number.toFixed(2),
                      percent(pattern.one_meaning_share),
                      <Button size="compact-xs" variant="subtle" onClick={() => put(s, pattern.points.join(', '))}>
                        Take it
                      </Button>,
                    ]),
                  )}
                />
              ),
            }}
          />
        </>
      )}
    </DeskFrame>
  );
}

function branch(node: Schemas['Node'], tree: Schemas['Node'][]): string {
  const steps: string[] = [];
  for (let at: Schemas['Node'] | undefined = node; at && at.parent !== null; at = at.parent === null ? undefined : tree[at.parent])
    steps.unshift(at.branch === 'keep' ? 'stay' : 'go');
  return steps.join(', ') || '—';
}
