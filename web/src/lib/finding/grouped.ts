// Findings of one kind together.
import type { Finding } from '../api/client';

/** `findings`, those of one judgement in one group; groups and their members in the given order. */
export function grouped(findings: Finding[]): Finding[][] {
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const group = groups.get(finding.code);
    if (group) group.push(finding);
    else groups.set(finding.code, [finding]);
  }
  return [...groups.values()];
}
