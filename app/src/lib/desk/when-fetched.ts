import type { Notice } from '$lib/ui/notice';

/** Does something with what is fetched for it; says so where it cannot be fetched. */
export function whenFetched<T>(
  place: { say(text: string, tone: Notice['tone']): void },
  fetched: Promise<T>,
  work: (module: T) => void,
): void {
  fetched.then(work, () =>
    place.say(
      'What is needed for that could not be fetched. Nothing was changed. Try again in a moment.',
      'bad',
    ),
  );
}
