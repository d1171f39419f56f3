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
})
