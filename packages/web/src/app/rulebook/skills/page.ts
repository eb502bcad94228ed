import type { ChapterPage } from '../chapter-page';

export const treesPage: ChapterPage = {
  key: 'trees',
  title: 'Skills',
  one: 'skill tree',
  fresh: () => ({ points: 5, nodes: [{ id: 'first', label: 'First', x: 1, y: 0 }] }),
  pieces: async () => {
    const [{ TreeSentences }, { TreePlan }, { ChosenNode }] = await Promise.all([
      import('./tree-sentences'),
      import('./tree-plan'),
      import('./chosen-node'),
    ]);
    return { spec: [{ type: TreeSentences }], beside: { type: TreePlan, takesId: true }, providers: [ChosenNode] };
  },
};
