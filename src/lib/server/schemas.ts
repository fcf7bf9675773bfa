import Joi from 'joi';
import { FORMATS } from './formats.ts';
import { EXTRAS, PAPERS, STAFF_SIZES, VARIANTS } from '../../core/reading/page-settings.ts';
import { MOST_TO_REMEMBER } from '../../core/edition/text/card.ts';
import { LONGEST_RECORDING } from '../../core/performance/recordings.ts';
import { TAPS } from '../../core/style/performance-weights.ts';
import { EFFECTS, MOST_AMOUNT } from '../../core/style/effects.ts';
import { MARKING_KINDS } from '../../core/reading/markings.ts';
import { CADENCE_TYPES } from '../../core/analysis/facts.ts';
import { NOTE_ROLES, VOICE_NAMES } from '../../core/analysis/roles.ts';
import { NUMBERINGS } from '../../core/reading/commands.ts';
import { SCHOOLS } from '../../core/style/schools.ts';
import { PERIODS } from '../../core/style/profiles.ts';

const id = Joi.string()
  .max(120)
  .pattern(/^[\w@.:/-]+$/);
const integer = Joi.number().integer();
const fraction = Joi.object({ n: integer.required(), d: integer.min(1).required() });
const effect = Joi.string().valid(...EFFECTS.map((e) => e.key));
const words = Joi.string().allow('').max(2000);

const because = Joi.object({
  text: words.required(),
  rule: id,
  facts: Joi.array().items(id).max(20),
  sources: Joi.array().items(Joi.string().max(40)).max(10)
});

const markingFields = {
  kind: Joi.string().valid(...MARKING_KINDS),
  value: Joi.string().min(1).max(200),
  part: integer.min(0).max(200),
  staff: integer.min(1).max(64),
  start: fraction,
  end: fraction,
  note: Joi.string().max(200),
  endNote: Joi.string().max(200),
  because: Joi.array().items(because).max(20),
  remark: words,
  proposal: Joi.string().max(200),
  proposed: Joi.string().max(200)
};

const marking = Joi.object({ id: id.required(), ...markingFields }).fork(['kind', 'value', 'part', 'staff', 'start', 'because'], (f) =>
  f.required()
);

const pin = Joi.alternatives(
  Joi.object({
    id: id.required(),
    kind: 'key',
    start: fraction.required(),
    end: fraction.required(),
    key: Joi.string().max(20).required()
  }),
  Joi.object({
    id: id.required(),
    kind: 'chord',
    start: fraction.required(),
    end: fraction.required(),
    roman: Joi.string().max(20).required()
  }),
  Joi.object({ id: id.required(), kind: 'phrase-start', start: fraction.required(), here: Joi.boolean().required() }),
  Joi.object({
    id: id.required(),
    kind: 'cadence',
    start: fraction.required(),
    type: Joi.string()
      .valid(...CADENCE_TYPES)
      .required()
  }),
  Joi.object({ id: id.required(), kind: 'section', start: fraction.required(), label: Joi.string().allow('').max(24).required() }),
  Joi.object({
    id: id.required(),
    kind: 'role',
    start: fraction.required(),
    note: Joi.string().max(200).required(),
    role: Joi.string()
      .valid(...NOTE_ROLES)
      .required()
  }),
  Joi.object({
    id: id.required(),
    kind: 'voice',
    start: fraction.required(),
    note: Joi.string().max(200).required(),
    voice: Joi.string()
      .valid(...VOICE_NAMES)
      .required()
  }),
  Joi.object({
    id: id.required(),
    kind: 'same-music',
    start: fraction.required(),
    other: fraction.required(),
    length: fraction.required()
  }),
  Joi.object({
    id: id.required(),
    kind: 'dismiss',
    start: fraction.required(),
    fact: Joi.string().max(200).required(),
    what: Joi.string().max(80).required()
  })
);

const key = Joi.string().max(200).required();
const type = (name: string, fields: Record<string, Joi.Schema> = {}) =>
  Joi.object({ type: Joi.string().valid(name).required(), ...fields });

const schoolKey = Joi.string()
  .valid(...SCHOOLS.map((s) => s.key))
  .required();
const option = Joi.string().max(40).required();
const hash = Joi.string().hex().length(64).required();
// Raw: a day stays as it was written, and an act is stored as it was sent.
const day = Joi.string().isoDate().raw().required();
const measure = integer.min(0).max(100_000);
const level = Joi.number().min(0).max(9);
const rate = Joi.number().min(10).max(500);

const pages = Joi.object({
  paper: Joi.string()
    .valid(...Object.keys(PAPERS))
    .required(),
  landscape: Joi.boolean().required(),
  staff: Joi.string()
    .valid(...Object.keys(STAFF_SIZES))
    .required(),
  variant: Joi.string()
    .valid(...VARIANTS)
    .required(),
  show: Joi.array()
    .items(Joi.string().valid(...EXTRAS))
    .unique()
    .required(),
  hidden: Joi.array()
    .items(Joi.string().valid(...MARKING_KINDS))
    .unique()
    .required()
});

const inline = Joi.alternatives(
  Joi.object({
    type: Joi.string().valid('text').required(),
    text: Joi.string().max(20_000).required(),
    marks: Joi.array()
      .items(Joi.object({ type: Joi.string().valid('bold', 'italic').required() }))
      .max(2)
  }),
  Joi.object({ type: Joi.string().valid('hardBreak').required() })
);
const inlines = Joi.array().items(inline).max(2000);
const blocks = Joi.array().items(Joi.link('#block')).max(2000).required();
/** Text of the preface: only these kinds of blocks, so that nothing else is ever kept or shown. */
const richText = Joi.object({
  type: Joi.string().valid('doc').required(),
  content: Joi.array()
    .items(
      Joi.alternatives(
        Joi.object({ type: Joi.string().valid('paragraph').required(), content: inlines }),
        Joi.object({
          type: Joi.string().valid('heading').required(),
          attrs: Joi.object({ level: Joi.number().valid(2, 3).required() }).required(),
          content: inlines
        }),
        Joi.object({
          type: Joi.string().valid('bulletList', 'orderedList').required(),
          content: Joi.array()
            .items(Joi.object({ type: Joi.string().valid('listItem').required(), content: blocks }))
            .max(2000)
            .required()
        }),
        Joi.object({ type: Joi.string().valid('blockquote').required(), content: blocks })
      ).id('block')
    )
    .max(2000)
    .required()
});

const single = [
  type('choose-source', {
    source: hash,
    difference: Joi.string().max(120).required(),
    choice: Joi.object({
      source: hash,
      difference: Joi.string().max(120).required(),
      take: Joi.string().valid('ours', 'theirs').required(),
      because: words.required(),
      on: day
    })
      .allow(null)
      .required()
  }),
  type('set-pages', { pages: pages.required() }),
  type('write-preface', { text: richText.allow(null).required() }),
  type('write-card', { lines: Joi.array().items(Joi.string().max(300)).max(MOST_TO_REMEMBER).allow(null).required() }),
  type('set-period', {
    period: Joi.string()
      .valid(...PERIODS)
      .required()
  }),
  type('answer-school', { key: schoolKey, option, on: day }),
  type('answer-here', {
    answer: Joi.object({ key: schoolKey, option: option, from: fraction.required(), to: fraction.required(), on: day }).required()
  }),
  type('withdraw-answer', { key: schoolKey, from: fraction.allow(null).required() }),
  type('postpone-question', { key: schoolKey, on: day }),
  type('pull-level', { measure: measure.required(), level: level.allow(null).required() }),
  type('set-peak', { measure: measure.allow(null).required() }),
  type('set-ceiling', { level: level.allow(null).required() }),
  type('request-tempo', {
    range: Joi.object({ low: rate.required(), high: rate.min(Joi.ref('low')).required() })
      .allow(null)
      .required()
  }),
  type('set-amount', {
    effect: effect.required(),
    amount: Joi.number().min(0).max(MOST_AMOUNT).allow(null).required(),
    range: Joi.object({ from: fraction.required(), to: fraction.required() }).allow(null).required()
  }),
  type('pull-time', { measure: measure.required(), ratio: Joi.number().min(0.4).max(3).allow(null).required() }),
  type('take-rubato', {
    bars: Joi.object()
      .pattern(
        /^\d{1,6}$/,
        Joi.array()
          .items(
            Joi.number()
              .min(TAPS.least - 1)
              .max(TAPS.most - 1)
          )
          .max(1024)
      )
      .max(5000)
      .allow(null)
      .required()
  }),
  type('keep-recording', {
    id: id.required(),
    recording: Joi.object({
      id: id.required(),
      label: Joi.string().max(120).required(),
      times: Joi.array()
        .items(Joi.object({ measure: measure.required(), seconds: Joi.number().min(0).max(LONGEST_RECORDING).required() }))
        .max(5000)
        .required()
    })
      .allow(null)
      .required()
  }),
  type('write-brief', {
    from: measure.required(),
    to: measure.min(Joi.ref('from')).required(),
    text: Joi.string().allow(null).max(8000).required()
  }),
  type('weigh-rule', { rule: id.required(), factor: Joi.number().min(0).max(2).required() }),
  type('accept-finding', { finding: Joi.string().max(200).required(), because: words.allow(null).required() }),
  type('draft', {
    kept: Joi.array()
      .items(Joi.object({ key: Joi.string().max(200).required(), marking: marking.required() }))
      .min(1)
      .max(2000)
      .required()
  }),
  type('set-part', { part: integer.min(0).max(200).required() }),
  type('set-numbering', {
    numbering: Joi.string()
      .valid(...NUMBERINGS)
      .required()
  }),
  type('note-survey', {
    line: Joi.string().max(300).required(),
    note: Joi.object({ ticked: Joi.boolean(), comment: words, text: words, preface: Joi.boolean() }).allow(null).required()
  }),
  type('pin', { pin: pin.required() }),
  type('unpin', { id: id.required() }),
  type('add-marking', { marking: marking.required() }),
  type('change-marking', { id: id.required(), change: Joi.object(markingFields).min(1).required() }),
  type('remove-marking', { id: id.required() }),
  type('keep', { key, marking: marking.required() }),
  type('set-aside', { key }),
  type('reopen', { key }),
  type('undo'),
  type('redo')
];

export const commandSchema = Joi.alternatives(
  ...single,
  type('together', {
    what: Joi.string().max(200).required(),
    commands: Joi.array()
      .items(Joi.alternatives(...single))
      .min(1)
      .max(2000)
      .required()
  })
);

export const appendSchema = Joi.object({
  base: integer.min(0).required(),
  acts: Joi.array()
    .items(Joi.object({ origin: id.allow(null).default(null), command: commandSchema.required() }))
    .min(1)
    .max(500)
    .required()
});

const seconds = integer.min(0).required();
const base64 = Joi.string().base64().required();
const line = Joi.string().allow('').max(500).required();
export const archiveSchema = Joi.object({
  format: Joi.string().valid('nuvelo-archive/1').required(),
  piece: Joi.object({ title: line, composer: line, instrument: line, bars: integer.min(1).required(), createdAt: seconds }).required(),
  sources: Joi.array()
    .items(
      Joi.object({
        hash,
        name: line,
        fileName: line,
        format: Joi.string().valid('musicxml', 'abc').required(),
        createdAt: seconds,
        bytes: base64,
        document: Joi.string().required()
      })
    )
    .min(1)
    .max(20)
    .required(),
  readings: Joi.array()
    .items(
      Joi.object({
        name: line,
        createdAt: seconds,
        acts: Joi.array()
          .items(Joi.object({ command: commandSchema.required(), at: seconds }))
          .required()
      })
    )
    .min(1)
    .max(200)
    .required(),
  editions: Joi.array()
    .items(
      Joi.object({
        number: integer.min(1).required(),
        readingName: line,
        note: line,
        createdAt: seconds,
        content: Joi.object({
          document: Joi.string().required(),
          reading: Joi.object().unknown().required(),
          others: Joi.array()
            .items(Joi.object({ hash, name: line, document: Joi.string().required() }))
            .required(),
          names: Joi.object({ title: line, composer: line, instrument: line, source: line }).required(),
          facts: Joi.object().unknown().allow(null).required()
        })
          .unknown()
          .required(),
        pdf: base64
      })
    )
    .unique('number')
    .max(1000)
    .required()
});

export const formatSchema = Joi.string()
  .valid(...Object.keys(FORMATS))
  .required();
export const idSchema = integer.min(1).required();
export const revisionSchema = integer.min(0).required();
export const hashSchema = Joi.string().hex().length(64).required();
export const fileNameSchema = Joi.string().min(1).max(255).required();
export const excerptSchema = Joi.object({ from: integer.min(0).required(), to: integer.min(Joi.ref('from')).max(100_000).required() });

const readingName = Joi.string().trim().min(1).max(80).required();
export const copySchema = Joi.object({ from: integer.min(1).required(), name: readingName });
export const freezeSchema = Joi.object({ note: Joi.string().trim().allow('').max(500).required() });
/** A reading or a frozen edition, by its number. */
export const stateSchema = Joi.string()
  .pattern(/^(reading|edition)-\d{1,9}$/)
  .required();
export const sourceNameSchema = Joi.string().trim().min(1).max(80).required();
export const renameSchema = Joi.object({ name: readingName });
