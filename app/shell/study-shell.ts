import { ChangeDetectionStrategy, Component, effect, HostListener, inject, input, signal, type OnDestroy } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { StudySession } from '../state/study-session';
import { selectAllSaved, selectHistory, selectRole, selectSave, selectStudy } from '../state/study.selectors';
import { Drafts } from '../state/drafts';
import { Ask } from '../ui/dialogs/ask';
import { Icon } from '../ui/icon/icon';
import { belongsToField, isCovered } from '../ui/keys/writing-keys';
import { Desk } from '../ui/memo/desk';
import { WritingDesk } from '../ui/memo/writing-desk';
import { memoDrafts } from '../state/memo-drafts';
import type { IconName } from '../ui/icon/icon-names';
import { KeptViews } from './kept-views';
import { LastParts } from './last-parts';
import { SaveLine } from './save-line';
import { ScopeLine } from './scope-line';
import { ShownHereList } from '../state/shown-here';
import { ThemeChoice } from '../state/theme-choice';
import { Visits } from '../state/visits';

interface ViewLink {
  readonly path: string;
  readonly name: string;
  readonly icon: IconName;
  /** A small gap in front: gather and read · order and think · ask and see · tell. */
  readonly gap?: true;
}

const VIEWS: readonly ViewLink[] = [
  { path: 'overview', name: 'Overview', icon: 'home' },
  { path: 'material', name: 'Material', icon: 'folders' },
  { path: 'reading', name: 'Reading', icon: 'book', gap: true },
  { path: 'codebook', name: 'Codebook', icon: 'list-tree' },
  { path: 'memos', name: 'Memos', icon: 'pencil' },
  { path: 'queries', name: 'Queries', icon: 'list-search', gap: true },
  { path: 'patterns', name: 'Patterns', icon: 'grid-dots' },
  { path: 'write-up', name: 'Write-up', icon: 'writing', gap: true },
];

/** An open study: the thread of views at the left, the top line, and the present view. */
@Component({
  selector: 'fl-study-shell',
  imports: [RouterOutlet, RouterLink, RouterLinkActive, MatDialogModule, Desk, Icon, SaveLine, ScopeLine],
  host: { '[class.writing]': 'desk.task() !== null' },
  templateUrl: './study-shell.html',
  styleUrl: './study-shell.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudyShell implements OnDestroy {
  readonly studyId = input.required<string>();
  protected readonly session = inject(StudySession);
  protected readonly desk = inject(WritingDesk);
  protected readonly visits = inject(Visits);
  protected readonly lastParts = inject(LastParts);
  private readonly drafts = inject(Drafts);
  private readonly ask = inject(Ask);
  private readonly shownHere = inject(ShownHereList);
  private readonly keptViews = inject(KeptViews);

  protected readonly theme = inject(ThemeChoice);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly title = inject(Title);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly role = this.store.selectSignal(selectRole);
  protected readonly save = this.store.selectSignal(selectSave);
  private readonly allSaved = this.store.selectSignal(selectAllSaved);
  protected readonly trouble = signal<string | null>(null);
  protected readonly views = VIEWS;

  constructor() {
    effect(() => void this.open(this.studyId()));
    effect(() => this.title.setTitle(this.study() ? `${this.study()!.title} – Filum` : 'Filum'));
  }

  ngOnDestroy(): void {
    this.keptViews.clear();
  }

  /** A view that is kept off the screen says nothing any more; it will when it comes back. */
  protected onKept(): void {
    this.desk.about.set(null);
    this.shownHere.parts.set([]);
  }

  private async open(studyId: string): Promise<void> {
    try {
      this.trouble.set(null);
      await this.session.open(studyId);
      const open = memoDrafts.open(studyId);
      if (open && this.role() === 'writer') this.desk.task.set(open);
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Keys that hold in every view, unless they belong to a field, or something lies over it. */
  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (event.defaultPrevented || belongsToField(event) || isCovered()) return;
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    if (command && key === 'z') void this.session.step(event.shiftKey ? 'redo' : 'undo');
    else if (command && key === 'y') void this.session.step('redo');
    else if (command || event.altKey) return;
    else if (key === 'm') void this.desk.open({ about: this.desk.about() });
    else if (key === '?') void this.help();
    else return;
    event.preventDefault();
  }

  /** The browser asks before it closes a window with work that is not on disk, or with writing that is not kept. */
  @HostListener('window:beforeunload', ['$event'])
  protected onLeave(event: BeforeUnloadEvent): void {
    if ((this.role() === 'writer' && this.study() && !this.allSaved()) || this.drafts.unkept()) event.preventDefault();
  }

  protected async help(): Promise<void> {
    const { KeySheet } = await import('./key-sheet');
    this.dialog.open(KeySheet, { width: '620px', ariaLabel: 'Keys' });
  }

  protected leave(): void {
    void this.router.navigateByUrl('/');
  }

  /**
   * Whether the study can be left, by whatever way: all of it is on disk, or the researcher gives up what is not.
   * If so, it is closed.
   */
  async mayLeave(): Promise<boolean> {
    while (!(await this.session.close())) {
      const { steps, reason } = this.session.unsaved()!;
      const reply = await this.ask.reply({
        title: steps.length === 1 ? 'The last step is not on disk' : `The last ${steps.length} steps are not on disk`,
        lines: [
          reason,
          ...steps.slice(0, 6).map((step) => `– ${step}`),
          ...(steps.length > 6 ? [`and ${steps.length - 6} more`] : []),
          'They are only in this window, and are lost if you leave.',
        ],
        yes: 'Try again to store them',
        other: 'Leave without them',
      });
      if (!reply) return false;
      if (reply.chose === 'other') this.session.giveUp();
      else this.session.retry();
    }
    this.desk.close();
    // views kept alive show this study, and must not come up in the next
    this.keptViews.clear();
    return true;
  }
}
