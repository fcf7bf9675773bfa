import { INFLECTIONS, PRINTED_INFLECTIONS, type InflectionName } from '../../style/inflections.ts';
import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, noteOf, withName } from '../usual.ts';

export const inflection: MarkingDescription = {
  name: 'inflection',
  says: 'What the pitch of a note does before, inside or after it: a fall, a bend, a smear; or a note that is only hinted at.',
  hangs: 'note',
  needs: ['holds', 'sings'],
  unless: ['keys'],
  values: Object.keys(INFLECTIONS),
  inWords: withName('inflection'),
  legend: { sign: 'curves beside the heads', meaning: 'editorial inflections: fall, doit, scoop, bend, smear; (head) a ghost note' },
  mei(m, { identity }) {
    const { mei } = INFLECTIONS[m.value as InflectionName];
    return mei === null ? { onNote: `head.mod="paren" label="${escapeXml(m.id)}"` } : { inNote: `<artic ${identity} artic="${mei}"/>` };
  },
  musicXml: (m) => ({ notation: INFLECTIONS[m.value as InflectionName].musicXml }),
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.marks?.find((p) => p.name in PRINTED_INFLECTIONS && PRINTED_INFLECTIONS[p.name] !== m.value);
    return printed ? `a ${printed.name} is printed on the note` : null;
  },
  sound: (value) => ({ inflects: value as InflectionName })
};
