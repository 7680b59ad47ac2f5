import { applyChange } from '../change/apply';
import { advance } from '../change/journal';
import type { Shelf } from '../filing/shelf';
import type { StudyBundle } from '../formats/study-file/bundle';
import type { Id } from '../model/ids';

/** Studies in memory. An entry that does not follow the journal is refused, as a disk would. */
export class MemoryShelf implements Shelf {
  readonly studies = new Map<Id, StudyBundle>();
  /** How many studies are taken and not put back. */
  taken = 0;

  has(studyId: Id): Promise<boolean> {
    return Promise.resolve(this.studies.has(studyId));
  }

  titles(): Promise<ReadonlySet<string>> {
    return Promise.resolve(new Set([...this.studies.values()].map((one) => one.state.study.title)));
  }

  add(bundle: StudyBundle): Promise<void> {
    this.studies.set(bundle.state.study.id, bundle);
    return Promise.resolve();
  }

  take(studyId: Id): ReturnType<Shelf['take']> {
    const study = (): StudyBundle => this.studies.get(studyId)!;
    if (!this.studies.has(studyId)) return Promise.reject(new Error('This study is not in this browser.'));
    this.taken++;
    return Promise.resolve({
      state: () => Promise.resolve(study().state),
      texts: (ids) => Promise.resolve(ids.flatMap((id) => study().texts.get(id) ?? [])),
      whole: () => Promise.resolve(study()),
      write: (entry, _after, brought = new Map()) => {
        const { state, texts, journal, history, media } = study();
        const now = new Map(texts);
        for (const one of entry.change)
          if (one.type === 'text') {
            if (one.after) now.set(one.after.id, one.after);
            else now.delete(one.before!.id);
          }
        const next = { state: applyChange(state, entry.change), history: advance(history, entry), journal: [...journal, entry] };
        this.studies.set(studyId, { ...next, texts: now, media: new Map([...media, ...brought]) });
        return Promise.resolve();
      },
      putBack: () => void this.taken--,
    });
  }
}
