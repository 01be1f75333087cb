import { Subject, TextReading, readText } from '@wanderon/core';

export interface ReadAsk {
  readonly id: number;
  readonly text: string;
  readonly subject: Subject;
}

export interface ReadAnswer {
  readonly id: number;
  readonly reading: TextReading;
}

/** Reads long texts beside the page: twenty thousand records take longer than a key. */
self.onmessage = ({ data: { id, text, subject } }: MessageEvent<ReadAsk>): void => {
  self.postMessage({ id, reading: readText(text, subject) } satisfies ReadAnswer);
};
