import { inject, Injectable } from '@angular/core';
import { resizePicture } from '@core/commands/pictures';
import { counted } from '@core/text/counted';
import { MediaFiles } from '../../../state/media-files';
import { Notices } from '../../../state/notices';
import { StudySession } from '../../../state/study-session';
import { Ask } from '../../../ui/dialogs/ask';
import { PictureLevels } from '../../../ui/pictures/picture-levels';
import { FilesService } from '../../../workers/files-service';
import type { Picture } from './picture-here';

/** The most pixels along a side of a picture that is made anew: what every browser can draw. */
const MOST = 16_000;

/** Puts a smaller or larger copy in the place of a picture, with what is coded of it. */
@Injectable()
export class PictureResizing {
  private readonly ask_ = inject(Ask);
  private readonly session = inject(StudySession);
  private readonly media = inject(MediaFiles);
  private readonly files = inject(FilesService);
  private readonly notices = inject(Notices);

  /** Asks how wide it is to be, and makes it so. */
  async ask(picture: Picture): Promise<void> {
    const { width, height } = picture.ground;
    let wanted = 0;
    const reply = await this.ask_.reply({
      title: 'How large is the picture?',
      lines: [
        `It is ${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels. A smaller copy takes less room in the study; what is coded stays on the same parts. The picture as it was can be brought back by undoing.`,
      ],
      label: 'Width in pixels',
      text: String(width),
      yes: 'Make it so',
      tries: (raw) => {
        wanted = Number(raw.trim());
        const tall = Math.round((wanted * height) / width);
        return Number.isInteger(wanted) && wanted >= 1 && wanted <= MOST && tall >= 1 && tall <= MOST
          ? null
          : `Write a whole number of pixels, at most ${MOST.toLocaleString('en')} each way.`;
      },
    });
    if (!reply || wanted === width) return;
    await this.make(picture, wanted, Math.max(1, Math.round((wanted * height) / width)));
  }

  private async make(picture: Picture, width: number, height: number): Promise<void> {
    const found = await this.media.find(picture.ground.media);
    if ('missing' in found) return this.notices.refuse('The file of the picture is not here. Find it first.');
    const levels = await PictureLevels.of(found.file, picture.ground);
    try {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [width, height];
      const context = canvas.getContext('2d')!;
      context.imageSmoothingQuality = 'high';
      context.drawImage(levels.at(width / picture.ground.width), 0, 0, width, height);
      const type = picture.ground.media.type === 'image/jpeg' ? 'image/jpeg' : 'image/png';
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, type, 0.92));
      const sha256 = blob && (await this.files.sumOf(blob));
      if (!blob || !sha256) return this.notices.refuse('The browser could not make the picture so large. Nothing was changed.');
      const media = { sha256, bytes: blob.size, type };
      this.media.hold(sha256, blob);
      const done = this.session.run(resizePicture(picture.id, media, width, height), new Map([[sha256, blob]]));
      if (done) this.notices.say(`Now ${width} × ${height} pixels; ${counted(done.change.length - 1, 'area')} went along.`);
    } finally {
      levels.close();
    }
  }
}
