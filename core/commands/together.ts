import { applyChange } from '../change/apply';
import { carryOut } from './carry-out';
import { squash } from '../change/change';
import type { Action, Command } from '../change/command';

/**
 * One command of several: each sees what those before it did, and all together are one step that one undo takes back.
 * Those that find nothing to do are passed over; one that refuses refuses them all.
 * @param sentence what the log says; without one, what each did, one after the other
 * @throws CommandError
 */
export function together(commands: readonly Command[], sentence?: string): Command {
  return (state, context) => {
    const actions: Action[] = [];
    let now = state;
    for (const command of commands) {
      const action = carryOut(command, now, context);
      if (!action) continue;
      actions.push(action);
      now = applyChange(now, action.change);
    }
    const [first] = actions;
    if (!first) return null;
    if (actions.length === 1) return sentence ? { ...first, sentence } : first;
    return {
      change: squash(...actions.map((action) => action.change)),
      sentence: (sentence ?? actions.map((action) => action.sentence).join(', and ')).slice(0, 500),
    };
  };
}
