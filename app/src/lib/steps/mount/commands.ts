import Frame from '@lucide/svelte/icons/frame';
import ImagePlus from '@lucide/svelte/icons/image-plus';
import Lock from '@lucide/svelte/icons/lock';
import Eye from '@lucide/svelte/icons/eye';
import Trash from '@lucide/svelte/icons/trash-2';
import { removePicture, setPicture } from '@mirrot/core';
import type { Command } from '$lib/desk/command';
import { askForPictures } from '$lib/ui/ask';
import { fitOnSheet, type Workplace } from '$lib/desk/workplace.svelte';

const hasPicture = (w: Workplace): boolean => w.desk.traced !== null;

export const MOUNT: readonly Command[] = [
  {
    id: 'add-picture',
    title: 'Add a picture',
    icon: ImagePlus,
    run: (w) => askForPictures((files) => void w.addPictures(files)),
  },
  {
    id: 'fit-picture',
    title: 'Fit to the sheet',
    icon: Frame,
    steps: ['mount'],
    when: hasPicture,
    run(w) {
      const p = w.desk.traced!;
      w.desk.change(
        'Fit the picture',
        setPicture(p.id, { placement: fitOnSheet(p.width, p.height, w.desk.art.sheet) }),
      );
    },
  },
  {
    id: 'lock-picture',
    title: 'Lock the picture',
    icon: Lock,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.traced?.locked ?? false,
    run(w) {
      const p = w.desk.traced!;
      w.desk.change(
        p.locked ? 'Unlock the picture' : 'Lock the picture',
        setPicture(p.id, { locked: !p.locked }),
      );
    },
  },
  {
    id: 'show-picture',
    title: 'Show the picture',
    icon: Eye,
    steps: ['mount', 'proof'],
    when: hasPicture,
    on: (w) => w.desk.traced?.shown ?? false,
    run(w) {
      const p = w.desk.traced!;
      w.desk.change(p.shown ? 'Hide the picture' : 'Show the picture', setPicture(p.id, { shown: !p.shown }));
    },
  },
  {
    id: 'remove-picture',
    title: 'Take the picture off',
    icon: Trash,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void w.desk.change('Take the picture off', removePicture(w.desk.traced!.id)),
  },
];
