import type { FunctionName } from '../language/tree'

/** Every way a function may be written, longest first where one begins with another. */
export const spellings: Record<string, FunctionName> = {
  arcsin: 'arcsin',
  arccos: 'arccos',
  arctan: 'arctan',
  arcsec: 'arcsec',
  arccsc: 'arccsc',
  arccot: 'arccot',
  asin: 'arcsin',
  acos: 'arccos',
  atan: 'arctan',
  sinh: 'sinh',
  cosh: 'cosh',
  tanh: 'tanh',
  sin: 'sin',
  cos: 'cos',
  tan: 'tan',
  sec: 'sec',
  csc: 'csc',
  cosec: 'csc',
  cot: 'cot',
  exp: 'exp',
  ln: 'ln',
  log: 'log',
  sqrt: 'sqrt',
  cbrt: 'cbrt',
  abs: 'abs',
  sgn: 'sgn',
  sign: 'sgn',
  floor: 'floor',
  ceil: 'ceil',
  min: 'min',
  max: 'max',
}

/** What sin^-1 and its like mean. */
export const inverses: Partial<Record<FunctionName, FunctionName>> = {
  sin: 'arcsin',
  cos: 'arccos',
  tan: 'arctan',
  sec: 'arcsec',
  csc: 'arccsc',
  cot: 'arccot',
}
