import { filesIn } from './files';

/**
 * Takes files dropped onto an element; while something is held over it, it is marked (`files-over`).
 *
 * @param refuse hears a sentence where what was dropped is no file
 */
export const dropFiles =
  (take: (files: File[]) => void, refuse: (sentence: string) => void) =>
  (element: HTMLElement): (() => void) => {
    const listening = new AbortController();
    const { signal } = listening;
    const mark = (on: boolean): void => void element.classList.toggle('files-over', on);
    const over = (e: DragEvent): void => {
      e.preventDefault();
      mark(true);
    };
    element.addEventListener('dragover', over, { signal });
    element.addEventListener('dragleave', (e) => e.target === element && mark(false), { signal });
    const drop = (e: DragEvent): void => {
      e.preventDefault();
      mark(false);
      const files = filesIn(e.dataTransfer);
      if (files.length > 0) take(files);
      else refuse('That was no file. Nothing was added.');
    };
    element.addEventListener('drop', drop, { signal });
    return () => listening.abort();
  };
