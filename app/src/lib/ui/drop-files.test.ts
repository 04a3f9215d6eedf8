import { expect, it } from 'vitest';
import { dropFiles } from './drop-files';

it('marks what files are held over, takes those that are dropped, and says so where nothing of it is a file', () => {
  const marks: boolean[] = [];
  const element = Object.assign(new EventTarget(), { classList: { toggle: (_: string, on: boolean) => void marks.push(on) } }); // prettier-ignore
  const [taken, refused]: [string[], string[]] = [[], []];
  const end = dropFiles(
    (files) => taken.push(...files.map(({ name }) => name)),
    (sentence) => refused.push(sentence),
  )(element as unknown as HTMLElement);
  const send = (name: string, files: readonly File[] = []): Event => {
    const event = Object.assign(new Event(name, { cancelable: true }), {
      dataTransfer: { files, items: [] },
    });
    element.dispatchEvent(event);
    return event;
  };
  // Unless it is prevented the browser would open the file.
  expect(send('dragover').defaultPrevented).toBe(true);
  send('dragleave');
  send('dragover');
  expect(send('drop', [new File(['x'], 'a.zip'), new File(['y'], 'b.zip')]).defaultPrevented).toBe(true);
  expect(marks).toEqual([true, false, true, false]);
  expect(taken).toEqual(['a.zip', 'b.zip']);
  send('drop');
  expect(refused).toEqual(['That was no file. Nothing was added.']);
  end();
  send('drop', [new File(['x'], 'c.zip')]);
  expect(taken).toHaveLength(2);
});
