import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { ScoreError, type TextSpan } from '../model.ts';

/** A small piece of the document with its place in the text. */
export interface Element extends TextSpan {
  name: string;
  attributes: Record<string, string>;
  text: string;
  children: Element[];
  /** Offset just before the closing tag; equals `to` for an empty-element tag. */
  close: number;
}

export interface ScanHandlers {
  /** A container opened: score-partwise, score-timewise, part or measure. */
  open(name: string, attributes: Record<string, string>, span: TextSpan): void;
  /** A container closed; `close` is the offset of its closing tag. */
  close(name: string, close: number, to: number): void;
  /** Any other element directly inside a container, whole. */
  element(element: Element, parent: string): void;
}

const CONTAINERS = new Set(['score-partwise', 'score-timewise', 'part', 'measure']);
/** Far beyond any real score; deeper nesting is an attack or damage. */
const MAX_DEPTH = 64;

/**
 * One streaming pass over a MusicXML text. Entities that the file defines itself are not expanded and
 * nothing outside the text is read.
 * @throws ScoreError with the line when the text is not well-formed.
 */
export function scan(text: string, handlers: ScanHandlers): void {
  const parser = new SaxesParser();
  const containers: string[] = [];
  const stack: Element[] = [];
  let depth = 0;

  const fail = (message: string): never => {
    throw new ScoreError(message, { line: parser.line });
  };

  parser.on('error', (error) => fail(plainXmlFault(error.message)));
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY/i.test(doctype)) fail('The file defines entities of its own, which a score does not need');
  });
  parser.on('opentag', (tag: SaxesTagPlain) => {
    if (++depth > MAX_DEPTH) fail('Elements are nested more deeply than in any score');
    const to = parser.position;
    const from = text.lastIndexOf('<', to - 1);
    const top = stack.length ? stack[stack.length - 1] : undefined;
    if (!top && CONTAINERS.has(tag.name)) {
      containers.push(tag.name);
      handlers.open(tag.name, tag.attributes, { from, to });
      return;
    }
    if (containers.length === 0) fail(`This is XML but not a score: it begins with <${tag.name.slice(0, 40)}>`);
    const element: Element = { name: tag.name, attributes: tag.attributes, text: '', children: [], from, to, close: to };
    if (top) top.children.push(element);
    stack.push(element);
  });
  parser.on('text', (chunk) => {
    if (stack.length) stack[stack.length - 1].text += chunk;
  });
  parser.on('cdata', (chunk) => {
    if (stack.length) stack[stack.length - 1].text += chunk;
  });
  parser.on('closetag', (tag: SaxesTagPlain) => {
    depth--;
    const to = parser.position;
    const element = stack.pop();
    if (element) {
      element.to = to;
      element.close = tag.isSelfClosing ? to : text.lastIndexOf('<', to - 1);
      if (stack.length === 0) handlers.element(element, containers[containers.length - 1]);
      return;
    }
    containers.pop();
    handlers.close(tag.name, tag.isSelfClosing ? to : text.lastIndexOf('<', to - 1), to);
  });
  parser.write(text).close();
}

/** Turns the parser's message into a sentence for a teacher. */
function plainXmlFault(message: string): string {
  const detail = message.replace(/^[^:]*?\d+:\d+:\s*/, '').replace(/\.$/, '');
  if (/unclosed tag|unexpected end/i.test(detail)) return 'The file ends in the middle of the score';
  if (/undefined entity/i.test(detail)) return 'The file uses an entity that it may not define';
  if (/must contain a root|text data outside of root|before root/i.test(detail)) return 'This is not a MusicXML file';
  return `The XML is damaged: ${detail}`;
}

export const child = (element: Element, name: string): Element | undefined => {
  for (const c of element.children) if (c.name === name) return c;
  return undefined;
};

export const childText = (element: Element, name: string): string | undefined => {
  const found = child(element, name);
  return found ? found.text.trim() : undefined;
};
