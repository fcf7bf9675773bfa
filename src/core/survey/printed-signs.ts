import type { Score } from '../score/model.ts';
import { ARTICULATION_ASKS, ORNAMENT_ASKS, TECHNIQUE_ASKS } from '../style/signs.ts';
import { GroupBuilder, tally, times, type SurveyGroup } from './line.ts';

const GROUPS: [mark: string, title: string, asks: Record<string, string>][] = [
  ['ornament', 'Ornaments', ORNAMENT_ASKS],
  ['articulation', 'Articulation', ARTICULATION_ASKS],
  ['technical', 'Technique', TECHNIQUE_ASKS],
  ['fermata', 'Fermatas', {}]
];

/** Ornaments and what they ask, articulation signs and techniques with what they mean, fermatas; counted and located. */
export function printedSigns(score: Score): SurveyGroup[] {
  return GROUPS.map(([mark, title, asks]) => {
    const group = new GroupBuilder(title);
    const found = score.notes.flatMap((n) => (n.marks ?? []).filter((m) => m.group === mark).map((m) => ({ m, n })));
    const name = ({ m }: (typeof found)[number]) =>
      mark === 'fermata' ? 'fermata' : `${m.name}${m.value && mark === 'technical' ? `|${m.value}` : ''}`;
    for (const t of tally(found, name, ({ n }) => n.measure)) {
      const [sign, value] = t.name.split('|');
      const meaning = asks[sign] ? `; ${asks[sign]}` : '';
      group.add(sign.replace(/-/g, ' ') + (value ? ` ${value}` : ''), times(t.count) + meaning, t.bars);
    }
    if (mark === 'ornament') {
      const graces = score.notes.filter((n) => n.grace && !n.cue);
      const slashed = graces.filter((n) => n.grace!.slash).length;
      if (graces.length)
        group.add(
          'grace notes',
          `${times(graces.length)}${slashed ? `, ${slashed} of them with a stroke` : ''}`,
          graces.map((n) => n.measure)
        );
      const breaks = score.notes.filter((n) => n.marks?.some((m) => m.group === 'arpeggio'));
      if (breaks.length)
        group.add(
          'broken chords',
          times(breaks.length),
          breaks.map((n) => n.measure)
        );
    }
    if (mark === 'articulation') {
      const slurs = score.slurs.filter((s) => s.kind === 'slur');
      const place = new Map(score.notes.map((n) => [n.id, n.measure]));
      if (slurs.length)
        group.add(
          'slurs',
          times(slurs.length),
          slurs.map((s) => place.get(s.from) ?? 0)
        );
    }
    const overBars = mark === 'fermata' ? score.measures.filter((m) => m.barFermata) : [];
    if (overBars.length)
      group.add(
        'fermata over the bar line',
        times(overBars.length),
        overBars.map((m) => m.index)
      );
    if (mark === 'technical')
      for (const d of score.directions)
        if (
          d.kind === 'words' &&
          /pizz|arco|con sord|senza sord|mute|col legno|sul pont|sul tasto|flutter|frull|gestopft|stopped|open\b/i.test(d.text)
        )
          group.add(d.text, 'word on technique', [d.measure]);
    return group.group;
  });
}
