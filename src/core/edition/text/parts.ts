import { paragraph } from '../../reading/rich-text.ts';
import { shownMarkings, shows } from '../../reading/page-settings.ts';
import type { TableBlock, TextPart } from './blocks.ts';
import { cardText } from './card.ts';
import { commentaryText } from './commentary.ts';
import { criticalReport } from './critical-report.ts';
import type { Edition } from './edition.ts';
import type { LegendLine } from '../../markings/description.ts';
import { legend } from './legend.ts';
import { preface } from './preface.ts';
import { questionsText } from './questions.ts';

/** The signs in two columns, each with its meaning. */
function signTable(signs: readonly LegendLine[]): TableBlock {
  const half = Math.ceil(signs.length / 2);
  const segments = (l: LegendLine | undefined): string[] => (l ? [l.sign, l.meaning] : ['', '']);
  const rows = signs.slice(0, half).map((l, k) => [...segments(l), ...segments(signs[half + k])]);
  return { type: 'table', head: [], rows, widths: [0.2, 0.3, 0.2, 0.3] };
}

/** What stands before the music. */
export function before(edition: Edition): TextPart[] {
  const { variant } = edition.reading.pages;
  if (variant === 'card') return [{ title: 'For the stand', blocks: cardText(edition) }];
  if (variant !== 'study') return [];
  const signs = legend(shownMarkings(edition.reading.markings, edition.reading.pages));
  return [
    { title: 'Preface', blocks: preface(edition).content },
    { title: 'Signs', blocks: [signTable(signs)] }
  ];
}

/** What stands after the music. */
export function after(edition: Edition): TextPart[] {
  const { pages } = edition.reading;
  if (pages.variant !== 'study') return [];
  const parts: TextPart[] = [{ title: 'Commentary', blocks: commentaryText(edition) }];
  parts.push({ title: 'Critical report', blocks: criticalReport(edition) });
  if (edition.remarks.length) parts.push({ title: 'Left out', blocks: edition.remarks.map((sentence) => paragraph(sentence)) });
  if (shows(pages, 'questions')) parts.push({ title: 'Questions and answers', blocks: questionsText(edition) });
  return parts.filter((p) => p.blocks.length);
}
