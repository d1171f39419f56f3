/** Words that only join others, or say what someone wants done: they ask for nothing themselves. */
export const joining: ReadonlySet<string> = new Set([
  ...['a', 'an', 'the', 'of', 'at', 'to', 'in', 'on', 'over', 'from', 'until', 'for', 'by', 'with'],
  ...['and', 'as', 'is', 'are', 'be', 'does', 'do', 'did', 'has', 'have', 'it', 'its', 'there'],
  ...['between', 'along', 'under', 'below', 'within', 'where', 'when', 'what', 'which', 'how'],
  ...[
    'many',
    'much',
    'find',
    'show',
    'draw',
    'plot',
    'sketch',
    'add',
    'give',
    'me',
    'please',
    'compute',
  ],
  ...['calculate', 'determine', 'put', 'make', 'let', 'use', 'using', 'all', 'any', 'curve', 'us'],
  ...['line', 'graph', 'function', 'point', 'points', 'place', 'places', 'value', 'values', 'get'],
  ...['interval', 'span', 'number', 'equal', 'equals', 'that', 'this', 'through', 'whole', 'given'],
  ...['can', 'i', 'we', 'you', 'see', 'want', 'would', 'like', 'need', 'tell', 'state', 'write'],
  ...['identify', 'locate', 'list', 'obtain', 'work', 'out', 'also', 'then', 'now', 'next', 'here'],
  ...['so', 'such', 'if', 'about', 'around', 'following', 'corresponding', 'respective', 'each'],
  ...['estimate', 'approximate', 'consider', 'explain', 'why', 'exact', 'exactly', 'first'],
  ...['illustrate', 'create', 'insert', 'construct', 'mark', 'label', 'display', 'check', 'apply'],
  ...[
    "what's",
    'whats',
    'was',
    'were',
    'will',
    'should',
    'could',
    'must',
    'their',
    'them',
    'these',
  ],
  ...['into', 'onto', 'up', 'again', 'just', 'only', 'some', 'one', 'answer', 'question', 'my'],
  ...['attain', 'attains', 'occur', 'occurs', 'take', 'takes', 'achieve', 'achieves', 'reach'],
  ...['reaches', 'evaluate', 'come', 'comes', 'still', 'really', 'ever'],
  ...['applies', 'hold', 'holds', 'calculus', 'theorem', 'test', 'called', 'graphs', 'curves'],
])

export interface Token {
  word: string
  /** In lower case, without the signs around it. */
  plain: string
  index: number
}

/** The words of a text, without marks that stand alone. */
export const tokensOf = (text: string): Token[] =>
  [...text.matchAll(/[^\s,;\uE000]+/g)].flatMap(({ 0: word, index }) => {
    const plain = word.toLowerCase().replace(/^[^\p{L}\d∫\\]+|[^\p{L}\d²∫]+$/gu, '')
    return plain === '' ? [] : [{ word: word.replace(/[.?!:]+$/, ''), plain, index }]
  })
