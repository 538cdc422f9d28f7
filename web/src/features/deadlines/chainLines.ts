/** The lines of a chain's text: which are steps, what its headers say. */

const STEP = /^\s*(?:\d|on\b)/i;

/** A comment, with the white space before it; never inside quotes. */
function commentOf(line: string): string {
  let quoted = false;
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '"') {
      quoted = !quoted;
    }
    const begins = i === 0 || /\s/.test(line[i - 1]!);
    if (
      !quoted &&
      line[i] === '#' &&
      begins &&
      (i + 1 === line.length || /\s/.test(line[i + 1]!))
    ) {
      return line.slice(line.slice(0, i).trimEnd().length);
    }
  }
  return '';
}

const split = (text: string) => text.split(/\r\n|\r|\n/);

/** Its steps, each with the number of its line. */
export function linesOf(text: string): { at: number; text: string }[] {
  return split(text)
    .map((line, at) => ({ at, text: line.slice(0, line.length - commentOf(line).length).trim() }))
    .filter((line) => STEP.test(line.text));
}

const header = (name: string) =>
  new RegExp(`^(\\s*${name.replace(' ', '\\s+')}\\s*:\\s*)(.*)$`, 'i');

export function headerOf(text: string, name: string): string {
  const line = split(text).find((one) => header(name).test(one));
  if (line === undefined) {
    return '';
  }
  const comment = commentOf(line);
  return header(name).exec(line.slice(0, line.length - comment.length))?.[2] ?? '';
}

/** With another header; where there was none it stands behind those there are. */
export function withHeader(text: string, name: string, value: string): string {
  const lines = split(text);
  const at = lines.findIndex((one) => header(name).test(one));
  if (at >= 0) {
    const comment = commentOf(lines[at]!);
    if (value === '' && name === 'ask') {
      lines.splice(at, 1);
    } else {
      lines[at] = `${name}: ${value}${comment}`;
    }
    return lines.join('\n');
  }
  const first = lines.findIndex((line) => STEP.test(line));
  const before = first < 0 ? lines.length : first;
  const place = [...lines.slice(0, before).keys()].filter((i) => lines[i]!.includes(':')).at(-1);
  lines.splice((place ?? -1) + 1, 0, `${name}: ${value}`);
  return lines.join('\n');
}

/** With another step on a line, which keeps its comment; without a number it is a new last one. */
export function withLine(text: string, at: number | null, step: string): string {
  const lines = split(text);
  if (at !== null) {
    lines[at] = step + commentOf(lines[at]!);
    return lines.join('\n');
  }
  return text.replace(/\s*$/, '\n') + step + '\n';
}

export function withoutLine(text: string, at: number): string {
  return split(text)
    .filter((_, index) => index !== at)
    .join('\n');
}
