import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { draftCard } from '../../../src/core/edition/text/card.ts';
import { commentaryText } from '../../../src/core/edition/text/commentary.ts';
import { textAsHtml, textAsMarkdown } from '../../../src/core/edition/text/formats.ts';
import type { TextPart } from '../../../src/core/edition/text/blocks.ts';
import { after, before } from '../../../src/core/edition/text/parts.ts';
import { draftPreface } from '../../../src/core/edition/text/preface.ts';
import { openEdition } from '../../../src/core/edition/open-edition.ts';
import { apply } from '../../../src/core/reading/log.ts';
import { bullets, heading, paragraph, span, type RichText } from '../../../src/core/reading/rich-text.ts';
import { danceOf } from '../../../src/core/style/dances.ts';
import { accepts } from '../reading/accepts.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { demoInput, frozen } from './input.ts';
import { plainBlock } from './plain.ts';

const parts: TextPart[] = [
  {
    title: 'A <b>title</b>',
    blocks: [
      heading('Tempo & touch'),
      paragraph([span('Bold', 'bold'), span(' and '), span('leaning ', 'italic'), span('<script>alert(1)</script>')]),
      bullets(['one', [span('two *stars*', 'bold', 'italic')]]),
      paragraph('1. is no list'),
      { type: 'blockquote', content: [paragraph('said')] },
      { type: 'table', head: ['Bar', 'Reading'], rows: [['1', 'C | D']], widths: [0.2, 0.8] }
    ]
  }
];

test('text as HTML: form becomes tags, and nothing that was typed can run', () => {
  const html = textAsHtml('T & T', 'N. N.', parts);
  assert.match(html, /<h2>A &lt;b&gt;title&lt;\/b&gt;<\/h2>/);
  assert.match(html, /<strong>Bold<\/strong> and <em>leaning <\/em>&lt;script&gt;/);
  assert.match(html, /<ul><li><p>one<\/p><\/li><li><p><strong><em>two \*stars\*<\/em><\/strong>/);
  assert.match(html, /<blockquote><p>said<\/p><\/blockquote>/);
  assert.match(html, /<th>Bar<\/th>.*<td>C \| D<\/td>/s);
  assert.ok(!/<script/.test(html));
});

test('text as Markdown: CommonMark signs around words without blanks, what looks like form is escaped', () => {
  const text = textAsMarkdown('T', '', parts);
  assert.match(text, /^# T\n\n## A \\<b\\>title\\<\/b\\>\n\n### Tempo & touch/);
  assert.match(text, /\*\*Bold\*\* and \*leaning\* \\<script\\>/);
  assert.match(text, /\n- one\n- \*\*\*two \\\*stars\\\*\*\*\*\n/);
  assert.match(text, /\n1\\\. is no list\n/);
  assert.match(text, /\n> said\n/);
  assert.match(text, /\| Bar \| Reading \|\n\| --- \| --- \|\n\| 1 \| C \\\| D \|/);
});

test('the drafted preface says what the issue of an edition needs: piece, style and schools, tempo with its arithmetic, sources, care', () => {
  const { edition } = openEdition(demoInput('andantino.abc'));
  const text = draftPreface(edition).content.map(plainBlock).join('\n');
  assert.match(text, /24 bars in 3\/4\. It begins in F major/);
  assert.match(text, /Form: rounded binary/);
  assert.match(text, /Trills begin on the upper note\..*C\. P\. E\. Bach 1753/);
  assert.match(text, /By the custom of the period [a-z]/);
  // 48 bars as played (the demo's own repeats) of three quarters: 144 beats, and 144 × 60 / 88 is 98.2 seconds.
  assert.match(text, /48 bars as played are 144 quarter beats; at 88 a minute .* 144 × 60 ÷ 88 = 1 min 38 s/);
  assert.match(text, /Asked for: 80 to 92/);
  assert.match(text, /“The print of the school”/);
  assert.match(text, /see a clinician/);
  const dance = openEdition(demoInput('corrente.abc')).edition;
  assert.match(draftPreface(dance).content.map(plainBlock).join('\n'), /Corrente: running evenly in three/);
  // Handbook 3.7.
  assert.equal(danceOf('Sarabande and Double')?.name, 'Sarabande');
  assert.equal(danceOf('Study in thirds'), null);
});

test('a player of a transposing instrument reads keys as they are written, with the sounding ones behind them', async () => {
  const etude = openEdition(demoInput('etude.abc')).edition;
  assert.match(draftPreface(etude).content.map(plainBlock).join('\n'), /It begins in E minor \(sounding D minor\)/);
  const pages: string[] = [];
  await TASKS.pages(
    frozen(demoInput('etude.abc', { variant: 'study', show: ['keys'] })),
    (_stage, page) => void (page && pages.push(page))
  );
  const music = pages[1].replace(/<style>.*?<\/style>|<[^>]*>/gs, '');
  assert.ok(music.includes('E minor (sounding D minor)'), 'over the first bar');
});

test('commentary by section and bar; the study edition has it all, the page to play from has none of it', () => {
  const { edition } = openEdition(demoInput('andantino.abc'));
  const text = commentaryText(edition).map(plainBlock).join('\n');
  assert.match(text, /^Section A: bar 1 to bar 8, F major to C major\nBar 1\n/);
  assert.match(text, /Comma in bars 10 and 12\. A phrase ends without a rest/, 'the same for the same reason is said once');
  const etude = commentaryText(openEdition(demoInput('etude.abc')).edition)
    .map(plainBlock)
    .join('\n');
  assert.match(etude, /hairpin \w+, from \S+/, 'a hairpin says from which level it comes');
  assert.doesNotMatch(text, /Ii6|Iv /);
  assert.match(text, /Section B: bar 9 to bar 16/);
  assert.match(text, /To bar 16: The middle asks the question/);
  assert.match(text, /was considered and not taken/);
  assert.match(text, /To the player: Wait for the silence/);
  assert.deepEqual(
    [...before(edition), ...after(edition)].map((p) => p.title),
    ['Preface', 'Signs', 'Commentary', 'Questions and answers']
  );
  const played = openEdition(demoInput('andantino.abc', { variant: 'performance' })).edition;
  assert.deepEqual([...before(played), ...after(played)], []);
});

test('a suspect note and what is decided about it stand in the commentary', () => {
  const input = demoInput('corrente.abc');
  const { edition } = openEdition(input);
  const [first] = edition.facts.parallels.flatMap((p) => p.pairs);
  const note = edition.score.notes.find((n) => n.id === first[0])!;
  const suspect = {
    note: note.id,
    start: note.start,
    printed: 'B4',
    expected: 'B-flat4',
    confidence: 0.9,
    evidence: 'the return has it',
    parallel: { id: 'p', note: first[1], start: note.start }
  };
  const text = (reading: typeof input.reading) =>
    commentaryText({ ...edition, reading, facts: edition.facts, proposals: [], details: { ...edition.details, suspects: [suspect] } })
      .map(plainBlock)
      .join('\n');
  assert.match(
    text({ ...input.reading, schools: {} }),
    /B4 is printed where B-flat4 would be expected\. The return has it\. It stands as printed/
  );
  const answered = apply(input.reading, { type: 'answer-school', key: 'suspect-notes', option: 'emend-and-footnote', on: '2026-10-30' });
  assert.match(text(answered), /Decided: emend and footnote/);
});

test('the card: five lines at most, the teacher’s own when there are some', () => {
  for (const file of ['andantino.abc', 'corrente.abc', 'etude.abc']) {
    const { edition } = openEdition(demoInput(file, { variant: 'card' }));
    const lines = draftCard(edition);
    assert.ok(lines.length >= 3 && lines.length <= 5, file);
    assert.ok(
      lines.some((l) => l.includes('is the peak')),
      file
    );
    const own = apply(edition.reading, { type: 'write-card', lines: ['Sing first.'] });
    const [card] = before({ ...edition, reading: own });
    assert.match(card.blocks.map((b) => plainBlock(b as Parameters<typeof plainBlock>[0])).join('\n'), /To remember\nSing first\.$/);
  }
});

test('the preface takes rich text and nothing else', () => {
  const ok = (text: unknown) => accepts({ type: 'write-preface', text }) === null;
  const doc = (...content: unknown[]) => ({ type: 'doc', content });
  assert.ok(ok(null));
  assert.ok(ok({ type: 'doc', content: parts[0].blocks.filter((b) => b.type !== 'table') }));
  assert.ok(ok(doc({ type: 'paragraph' })));
  assert.ok(!ok(doc({ type: 'script', content: [] })));
  assert.ok(
    !ok(doc({ type: 'paragraph', content: [{ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:0' } }] }] }))
  );
  assert.ok(!ok(doc({ type: 'heading', attrs: { level: 1, onclick: 'x' }, content: [] })));
  assert.ok(!ok('<p>x</p>'));
});

test('any text that is typed survives as text in HTML', () => {
  fc.assert(
    fc.property(fc.string(), (typed) => {
      const text: RichText = { type: 'doc', content: [paragraph(typed)] };
      const html = textAsHtml('T', '', [{ title: 'P', blocks: text.content }]);
      const inner = /<h2>P<\/h2><p>([\s\S]*)<\/p><\/section>/.exec(html)![1];
      const back = inner
        .replace(/&lt;/g, '<')
        .replace(/&gt;/g, '>')
        .replace(/&quot;/g, '"')
        .replace(/&apos;|&#39;/g, "'")
        .replace(/&amp;/g, '&');
      assert.ok(!/[<>]/.test(inner));
      assert.equal(back, typed);
    })
  );
});
