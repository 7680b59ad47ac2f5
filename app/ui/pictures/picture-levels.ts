/** A picture that was decoded, in several sizes: each half as wide as the one before. */
export class PictureLevels {
  private constructor(
    /** Width of the picture in its own pixels: it may have been decoded larger or smaller. */
    private readonly width: number,
    private readonly levels: readonly ImageBitmap[],
  ) {}

  /**
   * Decodes a picture, off the main thread where the browser can.
   * @param size in its own pixels, upright; a drawing is drawn as large
   * @throws Error where it cannot be shown
   */
  static async of(file: Blob, size: { readonly width: number; readonly height: number }): Promise<PictureLevels> {
    const whole = file.type === 'image/svg+xml' ? await drawn(file, size) : await createImageBitmap(file);
    return PictureLevels.from(whole, size.width);
  }

  /** Of something that is decoded already, and is given up to it. @param width of the picture in its own pixels */
  static async from(whole: ImageBitmap, width: number): Promise<PictureLevels> {
    const levels = [whole];
    while (levels.at(-1)!.width > SMALL || levels.at(-1)!.height > SMALL) {
      const last = levels.at(-1)!;
      levels.push(
        await createImageBitmap(last, {
          resizeWidth: Math.max(1, Math.round(last.width / 2)),
          resizeHeight: Math.max(1, Math.round(last.height / 2)),
          resizeQuality: 'medium',
        }),
      );
    }
    return new PictureLevels(width, levels);
  }

  /** The smallest that is still as fine as the screen. @param scale pixels of the screen for one of the picture */
  at(scale: number): ImageBitmap {
    return this.levels.findLast((level) => level.width >= this.width * scale) ?? this.levels[0]!;
  }

  /** Lets go of the memory. */
  close(): void {
    for (const level of this.levels) level.close();
  }
}

/** Pixels along a side below which a picture is not halved any more. */
const SMALL = 512;

/** A drawing as an element shows it: there nothing in it runs, and nothing is fetched. */
async function drawn(file: Blob, { width, height }: { readonly width: number; readonly height: number }): Promise<ImageBitmap> {
  const address = URL.createObjectURL(file);
  try {
    const image = new Image(width, height);
    image.src = address;
    await image.decode();
    return await createImageBitmap(image, { resizeWidth: width, resizeHeight: height });
  } finally {
    URL.revokeObjectURL(address);
  }
}
