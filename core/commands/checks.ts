import { keyOf, type Finding } from '../codebook/checks';
import { updated } from '../change/change';
import { found, short, type Command } from '../change/command';

/** Findings that are remembered at most; the oldest go first. */
const MOST = 5_000;

/** Remembers of a finding of the checks that it was looked at and is left as it is. */
export function leaveFinding(finding: Pick<Finding, 'kind' | 'codeIds'>): Command {
  return (state) => {
    const { code } = state.tables;
    const names = finding.codeIds.map((id) => short(found(code[id], 'code').name));
    // what was left of codes that are gone by now is of no use to anybody
    const before = (state.study.checksLeft ?? []).filter((one) => one.codeIds.every((id) => Object.hasOwn(code, id)));
    if (before.some((one) => keyOf(one) === keyOf(finding))) return null;
    const checksLeft = [...before, { kind: finding.kind, codeIds: [...finding.codeIds] }].slice(-MOST);
    return { change: [updated('study', state.study, { checksLeft })], sentence: `left ${names.join(' and ')} as it is (${finding.kind})` };
  };
}

/** Shows findings again that were left as they are. */
export function lookAtAllFindings(): Command {
  return ({ study }) => {
    const { checksLeft, ...bare } = study;
    if (!checksLeft?.length) return null;
    return { change: [{ type: 'study', before: study, after: bare }], sentence: 'brought back the checks that were left as they are' };
  };
}
