import { acceptFinding } from './accept-finding.ts';
import { addMarking } from './add-marking.ts';
import { answerHere } from './answer-here.ts';
import { answerSchool } from './answer-school.ts';
import { changeMarking } from './change-marking.ts';
import { chooseSource } from './choose-source.ts';
import { draft } from './draft.ts';
import { judgeBars } from './judge-bars.ts';
import { keep } from './keep.ts';
import { keepRecording } from './keep-recording.ts';
import { keepOssia } from './keep-ossia.ts';
import { removeOssia } from './remove-ossia.ts';
import { noteSurvey } from './note-survey.ts';
import { pin } from './pin.ts';
import { postponeQuestion } from './postpone-question.ts';
import { pullLevel } from './pull-level.ts';
import { pullTime } from './pull-time.ts';
import { redo } from './redo.ts';
import { removeMarking } from './remove-marking.ts';
import { reopen } from './reopen.ts';
import { requestTempo } from './request-tempo.ts';
import { setAmount } from './set-amount.ts';
import { setAside } from './set-aside.ts';
import { setCeiling } from './set-ceiling.ts';
import { setInstrument } from './set-instrument.ts';
import { setNumbering } from './set-numbering.ts';
import { setPages } from './set-pages.ts';
import { setPart } from './set-part.ts';
import { setPeak } from './set-peak.ts';
import { setPeriod } from './set-period.ts';
import { setPlayer } from './set-player.ts';
import { takeRubato } from './take-rubato.ts';
import { tellOfComposer } from './tell-of-composer.ts';
import { together } from './together.ts';
import { undo } from './undo.ts';
import { unpin } from './unpin.ts';
import { weighRule } from './weigh-rule.ts';
import { withdrawAnswer } from './withdraw-answer.ts';
import { writeBrief } from './write-brief.ts';
import { writeCard } from './write-card.ts';
import { writePreface } from './write-preface.ts';
import type { CommandDescription } from './command.ts';

/** Everything that an instructor can do in a reading. */
export const COMMANDS = {
  'set-period': setPeriod,
  'answer-school': answerSchool,
  'answer-here': answerHere,
  'withdraw-answer': withdrawAnswer,
  'postpone-question': postponeQuestion,
  'weigh-rule': weighRule,
  'pull-level': pullLevel,
  'set-peak': setPeak,
  'set-ceiling': setCeiling,
  'request-tempo': requestTempo,
  'tell-of-composer': tellOfComposer,
  'write-brief': writeBrief,
  'set-amount': setAmount,
  'pull-time': pullTime,
  'take-rubato': takeRubato,
  'keep-recording': keepRecording,
  'keep-ossia': keepOssia,
  'remove-ossia': removeOssia,
  'choose-source': chooseSource,
  'set-pages': setPages,
  'write-preface': writePreface,
  'write-card': writeCard,
  together,
  'accept-finding': acceptFinding,
  draft,
  'set-part': setPart,
  'set-instrument': setInstrument,
  'set-player': setPlayer,
  'judge-bars': judgeBars,
  'set-numbering': setNumbering,
  'note-survey': noteSurvey,
  pin,
  unpin,
  'add-marking': addMarking,
  'change-marking': changeMarking,
  'remove-marking': removeMarking,
  keep,
  'set-aside': setAside,
  reopen,
  undo,
  redo
} as const satisfies Record<string, CommandDescription<never>>;

export type CommandType = keyof typeof COMMANDS;
type FieldsOf<D> = D extends CommandDescription<infer F> ? F : never;

/** One act of the instructor. A reading is nothing but the list of its commands. */
export type Command = { [T in CommandType]: { type: T } & FieldsOf<(typeof COMMANDS)[T]> }[CommandType];

export const COMMAND_TYPES = Object.keys(COMMANDS) as CommandType[];
