/** Numbers that belong together: each cluster is named by one of its own. */
export interface Clusters {
  find(n: number): number;
  unite(a: number, b: number): void;
}

/** No number belongs to another yet (union–find, Tarjan 1975). */
export function onePerCluster(): Clusters {
  const leads = new Map<number, number>();
  const find = (n: number): number => {
    let root = n;
    while (leads.has(root)) root = leads.get(root)!;
    for (let v = n; v !== root;) {
      const next = leads.get(v)!;
      leads.set(v, root);
      v = next;
    }
    return root;
  };
  return {
    find,
    unite(a, b) {
      const [one, other] = [find(a), find(b)];
      // The lower number leads: those of anchors come first.
      if (one !== other) leads.set(Math.max(one, other), Math.min(one, other));
    },
  };
}
