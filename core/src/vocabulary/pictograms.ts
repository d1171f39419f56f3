/** The small pictures that a marker can be, by the words that ask for them. */
export const pictograms = [
  ...['raft', 'ship', 'kayak', 'fish', 'bird', 'plane', 'helicopter', 'balloon', 'rocket'],
  ...['car', 'truck', 'train', 'bike', 'person', 'footprints', 'rabbit', 'turtle', 'snail', 'bug'],
  ...['leaf', 'droplet', 'house', 'anchor', 'flag', 'star', 'mountain', 'sun'],
] as const
