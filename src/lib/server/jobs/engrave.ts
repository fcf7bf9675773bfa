import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { ScoreError } from '../../../core/score/model.ts';

/** The MEI that the engraver makes of a MusicXML document. @throws ScoreError when it cannot read it. */
export async function meiOf(document: string): Promise<string> {
  const module = await createVerovioModule();
  enableLog(LOG_OFF, module);
  const toolkit = new VerovioToolkit(module);
  if (!toolkit.loadData(document)) throw new ScoreError('The engraver could not read this score');
  return toolkit.getMEI();
}
