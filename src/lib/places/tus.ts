import { Upload, type DetailedError } from 'tus-js-client';
import { PlaceError, type ProblemKind } from '$lib/core/model/place.ts';

/** Bytes of a part. A broken line costs at most what it had of one. */
const PART = 1024 * 1024;
/** Milliseconds between tries; counted anew whenever something came through. */
const RETRIES = [300, 1_000, 2_000, 4_000, 8_000, 15_000];

export interface Sending {
  file: Blob;
  endpoint: string;
  authorization: string;
  /** Where it was going before, or empty. */
  uploadUrl: string;
  metadata: Record<string, string>;
  /** The channel has said where it takes the file. */
  onaddress(url: string): void;
  onprogress(sent: number): void;
  signal: AbortSignal;
}

/**
 * Sends a file by tus 1.0, on from where the channel has it.
 * @throws PlaceError
 */
export function sendFile(sending: Sending): Promise<void> {
  const { file, endpoint, authorization, uploadUrl, metadata, signal } = sending;
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint,
      uploadUrl: uploadUrl || null,
      chunkSize: PART,
      retryDelays: RETRIES,
      headers: { Authorization: authorization },
      metadata,
      // Where it goes is kept with the transfer; the library's own memory is not needed.
      storeFingerprintForResuming: false,
      onUploadUrlAvailable: () => sending.onaddress(upload.url ?? ''),
      onProgress: (sent) => sending.onprogress(sent),
      onShouldRetry: (error) => {
        const status = error.originalResponse?.getStatus() ?? 0;
        return status === 0 || status === 409 || status === 423 || status === 429 || status >= 500;
      },
      onSuccess: () => {
        signal.removeEventListener('abort', stop);
        resolve();
      },
      onError: (error) => {
        signal.removeEventListener('abort', stop);
        reject(new PlaceError(problemOf(error, endpoint)));
      }
    });
    const stop = () => {
      void upload.abort();
      reject(new PlaceError({ kind: 'stopped', url: endpoint }));
    };
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop, { once: true });
    upload.start();
  });
}

function problemOf(error: Error | DetailedError, url: string) {
  const response = 'originalResponse' in error ? error.originalResponse : null;
  if (!response) return { kind: 'no-answer' as const, url, detail: error.message.slice(0, 200) };
  const status = response.getStatus();
  const detail = response.getBody().slice(0, 300);
  return { kind: kindOf(status, detail), url, status, detail };
}

function kindOf(status: number, said: string): ProblemKind {
  if (status === 401) return 'key-refused';
  if (status === 403) return /allowance|quota/i.test(said) ? 'over-quota' : 'right-missing';
  if (status === 413) return 'too-large';
  if (status === 429 || status === 423) return 'busy';
  return status >= 500 ? 'server-error' : 'refused';
}
