import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Glyphs, Measure, Page, PageItem } from '../../../src/core/edition/pages/page.ts';
import { pageSvg } from '../../../src/core/edition/pages/page-svg.ts';
import { readPicture } from '../../../src/core/edition/pages/picture.ts';
import { rows } from '../../../src/core/edition/pages/fill.ts';
import { Typesetter } from '../../../src/core/edition/pages/typesetter.ts';
import type { TextBlock } from '../../../src/core/edition/text/blocks.ts';
import { bullets, heading, paragraph, span } from '../../../src/core/reading/rich-text.ts';
import { TYPE } from '../../../src/core/style/page-weights.ts';
import { pathOperators } from '../../../src/lib/server/jobs/pages/path-operators.ts';

/** A face whose signs are all half as wide as high, bold ones a tenth wider. */
const measure: Measure = (text, face, size) => text.length * size * 0.5 * (face.startsWith('bold') ? 1.1 : 1);

function set(blocks: TextBlock[], width = 400, height = 500): Page[] {
  const setter = new Typesetter(width, height, measure, 'A piece');
  setter.part({ title: 'Part', blocks });
  return [...setter.end()];
}
const texts = (page: Page) => page.items.filter((i): i is PageItem & { kind: 'text' } => i.kind === 'text');
/** What stands above the foot of a page. */
const body = (page: Page) => texts(page).filter((t) => t.y <= page.height - TYPE.margin - TYPE.foot);

test('text stays between its margins, every word stands once and in order, whatever is written', () => {
  const word = fc.string({ minLength: 1, maxLength: 40, unit: fc.constantFrom('a', 'b', 'm', '.', '-') });
  const block = fc.oneof(
    fc.array(word, { minLength: 1, maxLength: 60 }).map((w) => paragraph(w.join(' '))),
    fc.array(word, { minLength: 1, maxLength: 5 }).map((w) => heading(w.join(' '))),
    fc
      .array(fc.array(word, { minLength: 1, maxLength: 8 }), { minLength: 1, maxLength: 8 })
      .map((items) => bullets(items.map((w) => w.join(' '))))
  );
  fc.assert(
    fc.property(fc.array(block, { minLength: 1, maxLength: 12 }), (blocks) => {
      const pages = set(blocks);
      for (const page of pages)
        for (const t of texts(page)) {
          assert.ok(t.x >= TYPE.margin - 0.01);
          assert.ok(t.x + measure(t.text, t.face, t.size) <= page.width - TYPE.margin + 0.01, t.text);
          assert.ok(t.y <= page.height - TYPE.margin + 5);
        }
      const letters = (s: string): string => s.replace(/[\s–]/g, '');
      const written = blocks
        .flatMap((b) => (b.type === 'bulletList' ? b.content.flatMap((i) => i.content) : [b]))
        .flatMap((b) => (b.type === 'paragraph' || b.type === 'heading' ? (b.content ?? []) : []))
        .map((i) => (i.type === 'text' ? i.text : ''))
        .join('');
      const drawn = pages.flatMap((p) => body(p).map((t) => t.text)).join('');
      assert.equal(letters(drawn), `Part${letters(written)}`);
    }),
    { numRuns: 60 }
  );
});

test('words of several faces follow one another on a line without a gap or an overlap', () => {
  const [page] = set([paragraph([span('Bold', 'bold'), span(' and '), span('leaning', 'italic'), span(', then plain.')])]);
  const line = body(page).slice(1);
  assert.deepEqual(
    line.map((t) => [t.text, t.face]),
    [
      ['Bold', 'bold'],
      ['and', 'roman'],
      ['leaning', 'italic'],
      [', then plain.', 'roman']
    ]
  );
  assert.equal(line[3].x, line[2].x + measure('leaning', 'italic', TYPE.text));
  assert.ok(line[1].x > line[0].x + measure('Bold', 'bold', TYPE.text));
});

test('a heading is never the last line of a page, and every page has its number and title at the foot', () => {
  for (let filler = 20; filler < 40; filler++) {
    const pages = set([...Array.from({ length: filler }, () => paragraph('line')), heading('Alone?'), paragraph('No.')]);
    const at = pages.findIndex((p) => texts(p).some((t) => t.text === 'Alone?'));
    assert.ok(body(pages[at]).at(-1)!.text !== 'Alone?');
    pages.forEach((p, k) =>
      assert.deepEqual(
        texts(p)
          .slice(-2)
          .map((t) => t.text),
        ['A piece', String(k + 1)]
      )
    );
  }
});

test('a table keeps its columns apart and says its head once', () => {
  const table: TextBlock = {
    type: 'table',
    head: ['Bar', 'Reading'],
    rows: [
      ['1', 'a reading that is long enough to need more than one line in its column of the table'],
      ['2', 'short']
    ],
    widths: [0.3, 0.7]
  };
  const [page] = set([table]);
  const segments = body(page).slice(1);
  const second = TYPE.margin + 0.3 * (400 - 2 * TYPE.margin);
  for (const c of segments)
    assert.ok(c.x === TYPE.margin ? c.x + measure(c.text, c.face, c.size) <= second : Math.abs(c.x - second) < 0.01);
  assert.equal(segments.filter((c) => c.face === 'bold').length, 2);
  const last = segments.findIndex((c) => c.text === 'short');
  assert.ok(segments[last].y > segments[last - 2].y);
  assert.ok(page.items.some((i) => i.kind === 'rule'));
});

test('a small table stands whole on one page with its title, a long one goes on over the page', () => {
  const table = (rows: number): TextBlock => ({
    type: 'table',
    head: [],
    rows: Array.from({ length: rows }, (_, k) => [`row ${k}`, 'meaning']),
    widths: [0.3, 0.7]
  });
  for (let filler = 10; filler < 30; filler++)
    for (const rows of [4, 60]) {
      const setter = new Typesetter(400, 500, measure, 'A piece');
      setter.part({ title: 'Text', blocks: Array.from({ length: filler }, () => paragraph('line')) });
      setter.part({ title: 'Signs', blocks: [table(rows)] });
      const pages = [...setter.end()];
      const on = (text: string): number => pages.findIndex((p) => body(p).some((t) => t.text === text));
      if (rows === 4) assert.deepEqual([on('row 0'), on('row 3')], [on('Signs'), on('Signs')]);
      else assert.ok(on('row 59') > on('row 0') && on('row 0') === on('Signs'));
    }
});

test('boxes go side by side as far as the line is wide', () => {
  const box = (width: number, height: number) => ({ width, height });
  assert.deepEqual(rows([box(40, 10), box(50, 20), box(30, 5), box(200, 8)], 100), {
    at: [
      { x: 0, y: 0 },
      { x: 40, y: 0 },
      { x: 0, y: 20 },
      { x: 0, y: 25 }
    ],
    height: 33
  });
  assert.deepEqual(rows([], 100), { at: [], height: 0 });
});

// SVG 2, 9.3 (path data) and ISO 32000-1, 8.5.2 (path construction operators).
test('paths become PDF operators: relative is absolute moved, smooth curves mirror, quadratic ones are raised', () => {
  assert.equal(pathOperators('M1 2L3 4h5v-1z'), '1 2 m\n3 4 l\n8 4 l\n8 3 l\nh');
  assert.equal(pathOperators('m1 2l2 2h5v-1Z'), pathOperators('M1 2L3 4H8V3z'));
  assert.equal(pathOperators('M0 0C0 10 10 10 10 0s10-10 10 0'), '0 0 m\n0 10 10 10 10 0 c\n10 -10 20 -10 20 0 c');
  // A smooth curve after a line has its first control point where it begins.
  assert.equal(pathOperators('M0 0L5 5S8 8 9 9').split('\n')[2], '5 5 8 8 9 9 c');
  // Further pairs after a move are lines; numbers may stand without blanks between them.
  assert.equal(pathOperators('M0,0 10,0-5.5.5'), '0 0 m\n10 0 l\n-5.5 0.5 l');
  // A quadratic curve raised: the control points are two thirds of the way to its own.
  assert.equal(pathOperators('M0 0Q3 6 6 0'), '0 0 m\n2 4 4 4 6 0 c');
  // An arc becomes curves that end where it ends.
  assert.match(pathOperators('M0 0A1 1 0 0 0 2 2'), /^0 0 m\n.* 2 2 c$/s);
  assert.throws(() => pathOperators('M0 0 rubbish'), /cannot be drawn/);
});

const SVG = `<svg viewBox="0 0 100 50"><defs><g id="E0A4-xyz"><path transform="scale(1,-1)" d="M0 0l10 0"/></g></defs>
<style>g.tempo{font-weight:bold}</style>
<svg class="definition-scale" viewBox="0 0 1000 500"><g class="page-margin" transform="translate(50, 20)">
<g class="note editorial"><use xlink:href="#E0A4-xyz" transform="translate(100, 30) scale(0.5, 0.5)"/></g>
<path d="M10 0 L400 0" stroke-width="8"/>
<polyline stroke-width="18" stroke-dasharray="72 54" fill="none" points="0,0 10,5 20,0 "/>
<rect x="1" y="2" width="3" height="4"/>
<g class="tempo"><text x="900" y="40" font-size="0px"><tspan class="text"><tspan font-size="100px">Allegro &amp; brio</tspan></tspan></text></g>
<g class="dynam"><text x="5" y="6" text-anchor="middle" font-size="0px"><tspan font-family="Leipzig" font-style="normal" font-size="720px">\uE52F</tspan></text></g>
</g></svg></svg>`;

test('the engraver’s picture is read: places, strokes, signs, words and what is editorial', () => {
  const glyphs: Glyphs = new Map();
  const picture = readPicture(SVG, glyphs, measure);
  assert.deepEqual([picture.width, picture.height], [1000, 500]);
  assert.deepEqual([...glyphs], [['E0A4', 'M0 0l10 0']]);
  const [sign, line, bend, box, tempo, dynamic] = picture.strokes;
  assert.deepEqual(sign, { kind: 'glyph', glyph: 'E0A4', at: [0.5, 0, 0, -0.5, 150, 50], editorial: true });
  assert.deepEqual(line, { kind: 'outline', d: 'M10 0 L400 0', at: [1, 0, 0, 1, 50, 20], fill: true, width: 8 });
  assert.ok(bend.kind === 'outline' && bend.d === 'M0 0L10 5L20 0' && !bend.fill && bend.dash === '72 54');
  assert.ok(box.kind === 'outline' && box.d === 'M1 2h3v4h-3Z');
  // The words would end beyond the line: they are moved back so that they end with it.
  assert.ok(tempo.kind === 'words' && tempo.runs[0].text === 'Allegro & brio' && tempo.runs[0].face === 'bold');
  assert.ok(Math.abs(tempo.x + measure('Allegro & brio', 'bold', 100) - 1000) < 1e-6);
  assert.ok(dynamic.kind === 'words' && dynamic.anchor === 'middle' && dynamic.runs[0].face === 'music' && dynamic.x === 55);
  assert.ok(picture.drawn >= 450);
});

test('a page as SVG stands on its own: each sign once, text escaped, the music font only where it is needed', () => {
  const glyphs: Glyphs = new Map();
  const picture = readPicture(SVG, glyphs, measure);
  const place = (x: number): PageItem => ({ kind: 'picture', x, y: 0, scale: 0.1, picture });
  const page: Page = {
    number: 2,
    width: 200,
    height: 100,
    items: [place(0), place(50), { kind: 'text', x: 1, y: 2, text: '<b>&', face: 'italic', size: 9 }],
    entries: []
  };
  const svg = pageSvg(page, glyphs, 'AAAA', 'T & T');
  assert.equal(svg.match(/<path id="E0A4"/g)!.length, 1);
  assert.equal(svg.match(/href="#E0A4"/g)!.length, 2);
  assert.match(svg, /<title>T &amp; T, page 2<\/title>/);
  assert.match(svg, /font-style="italic"[^>]*>&lt;b&gt;&amp;<\/text>/);
  assert.match(svg, /@font-face.*AAAA/);
  const plain = pageSvg({ ...page, items: page.items.slice(2) }, glyphs, 'AAAA', 'T');
  assert.ok(!plain.includes('@font-face') && !plain.includes('<path'));
});
