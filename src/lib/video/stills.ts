/** Longer side of a frame that is taken of a film. */
const LARGEST_SIDE = 1920;
/** Milliseconds in which a film has to show a frame. */
const PATIENCE = 20_000;

/** A film that is not shown, at an address that lets other sites read it. @throws where it cannot be played */
async function openFilm(url: string): Promise<HTMLVideoElement> {
  const film = document.createElement('video');
  film.crossOrigin = 'anonymous';
  film.muted = true;
  film.preload = 'auto';
  film.src = url;
  await happens(film, 'loadeddata');
  return film;
}

const happens = (film: HTMLVideoElement, name: string): Promise<void> =>
  new Promise((done, fail) => {
    const timer = setTimeout(() => fail(new Error('too slow')), PATIENCE);
    const end = (act: () => void) => () => {
      clearTimeout(timer);
      act();
    };
    film.addEventListener(name, end(done), { once: true });
    film.addEventListener(
      'error',
      end(() => fail(new Error('cannot be played'))),
      { once: true }
    );
  });

async function frame(film: HTMLVideoElement, second: number): Promise<Blob> {
  const end = Number.isFinite(film.duration) ? film.duration : second;
  film.currentTime = Math.max(0, Math.min(end - 0.1, second));
  await happens(film, 'seeked');
  const scale = Math.min(1, LARGEST_SIDE / Math.max(film.videoWidth, film.videoHeight));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(film.videoWidth * scale)),
    Math.max(1, Math.round(film.videoHeight * scale))
  );
  canvas.getContext('2d')?.drawImage(film, 0, 0, canvas.width, canvas.height);
  // A film whose site does not allow it cannot be read back.
  return canvas.convertToBlob({ type: 'image/webp', quality: 0.92 });
}

const close = (film: HTMLVideoElement): void => {
  film.removeAttribute('src');
  film.load();
};

/** A frame of a film at an address. @returns null where its site does not allow it, or it cannot be played */
export async function frameAt(url: string, second: number): Promise<Blob | null> {
  try {
    const film = await openFilm(url);
    try {
      return await frame(film, second);
    } finally {
      close(film);
    }
  } catch {
    return null;
  }
}

/** Frames of a clip of the user's own. @param shares of its length @returns none where it is no film */
export async function framesOfFile(
  file: Blob,
  shares: readonly number[]
): Promise<{ blob: Blob; second: number }[]> {
  const url = URL.createObjectURL(file);
  try {
    const film = await openFilm(url);
    const frames: { blob: Blob; second: number }[] = [];
    if (film.videoWidth > 0)
      for (const share of shares) {
        const second = share * (Number.isFinite(film.duration) ? film.duration : 0);
        frames.push({ blob: await frame(film, second), second });
      }
    close(film);
    return frames;
  } catch {
    return [];
  } finally {
    URL.revokeObjectURL(url);
  }
}
