import { strToU8, zipSync } from 'fflate';

/** Name of the score inside a compressed file. */
const SCORE = 'score.musicxml';

const CONTAINER = `<?xml version="1.0" encoding="UTF-8"?>
<container><rootfiles><rootfile full-path="${SCORE}" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>
`;

/** A MusicXML document as a compressed file (.mxl). MusicXML 4.0, "Compressed .mxl files": the mimetype first and not compressed. */
export function compressed(document: string): Uint8Array {
  return zipSync({
    mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
    'META-INF/container.xml': strToU8(CONTAINER),
    [SCORE]: strToU8(document)
  });
}
