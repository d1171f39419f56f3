import { readSettings } from './settings'

describe('settings', () => {
  test.each(['true', 'yes', 'on'])('no server trusts every proxy: %s', (text) => {
    expect(() => readSettings({ DATABASE_URL: 'x', TRUST_PROXY: text })).toThrow(/TRUST_PROXY/)
  })
  test('proxies are counted or named', () => {
    const trusted = (text: string) =>
      readSettings({ DATABASE_URL: 'x', TRUST_PROXY: text }).trustProxy
    expect(trusted('2')).toBe(2)
    expect(trusted('10.0.0.1, loopback')).toEqual(['10.0.0.1', 'loopback'])
  })
  test('have defaults on loopback', () => {
    expect(readSettings({ DATABASE_URL: 'postgres://x' })).toMatchObject({
      host: '127.0.0.1',
      port: 4620,
    })
  })
  test('name what cannot be used', () => {
    expect(() => readSettings({ DATABASE_URL: 'postgres://x', PORT: 'many' })).toThrow(/PORT/)
    expect(() => readSettings({})).toThrow(/DATABASE_URL/)
  })
  test('origins that may frame are whole origins, and never all of them', () => {
    const origins = (text: string) =>
      readSettings({ DATABASE_URL: 'x', FRAME_ORIGINS: text }).frameOrigins
    expect(origins('')).toEqual([])
    expect(
      origins('https://Course.example, http://localhost:3000 https://*.school.example'),
    ).toEqual(['https://course.example', 'http://localhost:3000', 'https://*.school.example'])
    const bad = [
      '*',
      'https://*',
      'course.example',
      'https://a.example/page',
      "'self'",
      'https:',
      'https://a.example;script-src',
    ]
    for (const text of bad) expect(() => origins(text)).toThrow(/FRAME_ORIGINS/)
  })
})
