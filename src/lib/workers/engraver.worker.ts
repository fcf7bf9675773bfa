import { expose } from 'comlink';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { EngraverService } from './engraver-service';

/** A few bars of two-staff music, engraved before anything is asked for: the first engraving of all is slow. */
function warmUp(engraver: VerovioToolkit): void {
  const note = (staff: number, k: number) =>
    `<note><pitch><step>${'CEGB'[k % 4]}</step><octave>${6 - staff}</octave></pitch><duration>1</duration><voice>${staff}</voice><type>16th</type><staff>${staff}</staff></note>`;
  const staff = (n: number) => Array.from({ length: 16 }, (_, k) => note(n, k)).join('');
  const bars = [1, 2, 3, 4].map(
    (n) =>
      `<measure number="${n}">${n === 1 ? '<attributes><divisions>4</divisions><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>' : ''}${staff(1)}<backup><duration>16</duration></backup>${staff(2)}</measure>`
  );
  engraver.loadData(
    `<score-partwise><part-list><score-part id="P1"><part-name/></score-part></part-list><part id="P1">${bars.join('')}</part></score-partwise>`
  );
  engraver.loadData(engraver.getMEI());
  engraver.renderToSVG(1);
}

const toolkit = createVerovioModule().then((module) => {
  enableLog(LOG_OFF, module);
  const engraver = new VerovioToolkit(module);
  warmUp(engraver);
  return engraver;
});

expose(new EngraverService(toolkit));
