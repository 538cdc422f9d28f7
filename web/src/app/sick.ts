/** Of a line like "Tam sick" or "sick Tam Birtles": who it is, if it fits one person alone. */
export function whoIsSick<P extends { name: string }>(line: string, people: P[]): P | undefined {
  const heard = /^(?:sick\s+(?<after>.+)|(?<before>.+?)\s+(?:is\s+)?sick)$/i.exec(line.trim());
  const name = (heard?.groups?.['after'] ?? heard?.groups?.['before'] ?? '').toLowerCase();
  if (name === '') {
    return undefined;
  }
  const fit = people.filter((one) => ` ${one.name.toLowerCase()}`.includes(` ${name}`));
  const exact = fit.filter((one) => one.name.toLowerCase() === name);
  const meant = exact.length > 0 ? exact : fit;
  return meant.length === 1 ? meant[0] : undefined;
}
