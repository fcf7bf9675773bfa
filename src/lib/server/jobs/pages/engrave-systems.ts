import { fittingOssias } from '../../../../core/reading/ossia.ts';
import { chunkWriter } from '../../../../core/edition/chunk.ts';
import { placed, type RowEntry } from '../../../../core/edition/mei.ts';
import { ornamentStaff } from '../../../../core/edition/ornament-staff.ts';
import { analysisRows } from '../../../../core/edition/rows.ts';
import { skeletonDocument } from '../../../../core/edition/skeleton.ts';
import { withSkeleton } from '../../../../core/edition/skeleton-staff.ts';
import { joinChunks, planSystems } from '../../../../core/edition/systems.ts';
import type { SetSystem } from '../../../../core/edition/pages/music.ts';
import type { MusicRoom } from '../../../../core/edition/pages/edition-pages.ts';
import type { Glyphs, Measure } from '../../../../core/edition/pages/page.ts';
import { readPicture } from '../../../../core/edition/pages/picture.ts';
import type { Edition } from '../../../../core/edition/text/edition.ts';
import { turnsAfter } from '../../../../core/edition/turns.ts';
import { skeleton } from '../../../../core/analysis/note-roles.ts';
import type { SoundingScore } from '../../../../core/analysis/sounding-score.ts';
import { ornamentsIn } from '../../../../core/performance/realised.ts';
import { shownMarkings, shows, STAFF_SIZES } from '../../../../core/reading/page-settings.ts';
import { measureAt } from '../../../../core/score/position.ts';
import type { Score } from '../../../../core/score/model.ts';
import { keyAsRead } from '../../../../core/analysis/key-words.ts';
import { ENGRAVING } from '../../../../core/style/page-weights.ts';
import type { LineEngraver } from './engraver.ts';

/** Systems that are engraved together: few at first, so that the first page is there early. */
const FIRST = 10;
const LEAST = 24;
/** What the systems of an edition are engraved from; `texture` only where a skeleton is shown. */
export interface SystemsInput {
  document: string;
  edition: Edition;
  sounding: () => SoundingScore;
  room: MusicRoom;
  engraver: (width: number, staff: number) => LineEngraver;
  glyphs: Glyphs;
  measure: Measure;
  progress: (bar: number) => void;
}

/** The systems of an edition one after another, each a picture of its own, and how many there are. */
export function engraveSystems({ document, edition, sounding, room, engraver, glyphs, measure, progress }: SystemsInput): {
  count: number;
  systems: Generator<SetSystem>;
} {
  const { score, facts, reading, details } = edition;
  const { pages } = reading;
  const staff = Math.min(STAFF_SIZES[pages.staff], largestStaff(score, room.height));
  const line = engraver(room.width, staff);
  const small = engraver(room.width, staff * ENGRAVING.smallStaff);
  const notes = new Map(score.notes.map((n) => [n.id, n]));
  const markings = placed(shownMarkings(reading.markings, pages), (id) => notes.get(id));
  const phraseStarts = new Set(facts.phrases.map((p) => measureAt(score, p.start).index));
  const chunks = joinChunks(
    score,
    planSystems(score, line.capacity * (shows(pages, 'count') ? ENGRAVING.counted : 1), phraseStarts),
    markings,
    FIRST,
    LEAST
  );
  const write = chunkWriter(document, score);
  const frame = { measures: score.measures, parts: score.parts.map(({ index, staves }) => ({ index, staves })) };
  const turns = turnsAfter(score, reading);
  const rows = rowsOf(edition);
  const ossias = fittingOssias(score, reading.ossias);
  const pillars = shows(pages, 'skeleton') ? new Map(details.roles.map((r) => [r.note, r])) : null;

  const skeletonMei = (from: number, to: number): string | null => {
    // The line over the upper staff; where it rests, the melody may go on below.
    const tones = sounding().melody.filter(
      ({ note }) => note.measure >= from && note.measure < to && note.part === reading.part && note.staff === 1
    );
    const kept = skeleton(tones, pillars!, 1);
    return kept.length ? small.mei(skeletonDocument(score, kept, from, to - 1)) : null;
  };

  const footnote = (from: number, to: number): SetSystem['footnote'] => {
    if (!shows(pages, 'ornaments')) return null;
    const ornaments = ornamentsIn(score, facts, reading, from, to - 1);
    if (!ornaments.length) return null;
    return { picture: readPicture(small.alone(ornamentStaff(score, ornaments)), glyphs, measure), scale: small.perUnit };
  };

  function* systems(): Generator<SetSystem> {
    for (const chunk of chunks) {
      const within = (t: RowEntry['start']): boolean => {
        const { index } = measureAt(score, t);
        return index >= chunk.from && index < chunk.to;
      };
      let mei = line.mei(write(chunk));
      if (pillars) {
        const bare = skeletonMei(chunk.from, chunk.to);
        if (bare) mei = withSkeleton(mei, bare, frame, reading.part, chunk.from);
      }
      const draw = line.systems(
        mei,
        frame,
        chunk,
        markings.filter((m) => within(m.start)),
        rows.filter((r) => r.until || within(r.start)),
        chunk.to === score.measures.length,
        ossias
      );
      const drawn = chunk.systems.map((from, k) => {
        progress(from);
        const to = chunk.systems[k + 1] ?? chunk.to;
        return { from, to, picture: readPicture(draw(k + 1), glyphs, measure) };
      });
      // Footnotes are engraved with the same tool and come after the systems of the chunk.
      for (const d of drawn)
        yield { ...d, scale: line.perUnit / (chunk.needs ?? 1), turn: turns[d.to - 1], footnote: footnote(d.from, d.to) };
    }
  }
  return { count: chunks.reduce((n, c) => n + c.systems.length, 0), systems: systems() };
}

/** Height of a staff, in points, at which a system of all parts fits on a page: a score of many parts is printed smaller. */
const largestStaff = ({ parts }: Score, height: number): number =>
  height / (ENGRAVING.stavesApart * parts.reduce((n, p) => n + p.staves, 0));

/** The rows of analysis that the pages show. */
function rowsOf({ score, facts, reading }: Edition): RowEntry[] {
  const { pages } = reading;
  return analysisRows(
    score,
    facts,
    {
      chords: shows(pages, 'chords'),
      keys: shows(pages, 'keys'),
      phrases: shows(pages, 'phrases') && 'brackets',
      rhythm: shows(pages, 'rhythm'),
      count: shows(pages, 'count')
    },
    (k) => keyAsRead(k, score.parts[reading.part].transpose),
    reading.part
  );
}
