const NAMES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' };

/** Text made safe for element content and attribute values; characters that XML forbids are left out. */
export const escapeXml = (text: string): string =>
  // eslint-disable-next-line no-control-regex -- these are the characters that XML 1.0 does not allow
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').replace(/[&<>"']/g, (c) => NAMES[c]);
