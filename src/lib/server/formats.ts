/** Forms in which an edition goes out, with their types. */
export const FORMATS = {
  pdf: 'application/pdf',
  musicxml: 'application/vnd.recordare.musicxml+xml; charset=utf-8',
  mxl: 'application/vnd.recordare.musicxml',
  mei: 'application/xml; charset=utf-8',
  mid: 'audio/midi',
  'literal.mid': 'audio/midi',
  'svg.zip': 'application/zip',
  md: 'text/markdown; charset=utf-8',
  html: 'text/html; charset=utf-8'
} as const;
export type Format = keyof typeof FORMATS;
