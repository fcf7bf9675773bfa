import { escapeXml } from '../../score/musicxml/escape.ts';
import { MEI_ARTICULATIONS, SIGN_SOUNDS } from '../../style/articulations.ts';
import type { Marking } from '../marking.ts';
import type { MarkingDescription, MeiPlace, MeiSign, XmlSign } from '../description.ts';
import { atOnePlace, IN_BRACKETS, noteOf, withName } from '../usual.ts';

type Sign = keyof typeof MEI_ARTICULATIONS;

/** Signs inside of a note, as MEI has them: one element each, or the engraver gives the second a name of its own. */
export const meiArticulation = (m: Marking, { identity, again }: MeiPlace): MeiSign => ({
  inNote: MEI_ARTICULATIONS[m.value as Sign]
    .split(' ')
    .map(
      (sign, k) => `<artic ${k ? again : identity} artic="${sign}" enclose="brack"${m.placing?.side ? ` place="${m.placing.side}"` : ''}/>`
    )
    .join('')
});

export const xmlArticulation = (m: Marking): XmlSign => ({ notation: `<articulations><${escapeXml(m.value)}/></articulations>` });

const SHORT = /staccat/;

export const articulation: MarkingDescription = {
  name: 'articulation',
  says: 'How long a note sounds, and how it is parted from the next.',
  hangs: 'note',
  values: ['staccato', 'tenuto', 'staccatissimo', 'detached-legato'] satisfies Sign[],
  inWords: withName('articulation'),
  legend: IN_BRACKETS,
  mei: meiArticulation,
  musicXml: xmlArticulation,
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.marks?.find(
      (p) => p.group === 'articulation' && SHORT.test(p.name) !== SHORT.test(m.value) && /staccat|tenuto/.test(p.name)
    );
    return printed ? `${printed.name} is printed on the note` : null;
  },
  sound: (value) => SIGN_SOUNDS[value] ?? {}
};
