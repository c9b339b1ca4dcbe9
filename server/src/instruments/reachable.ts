import { lookup } from 'node:dns/promises';
import { BlockList, isIP } from 'node:net';

/** This machine, and the networks that no router passes on. @source RFC 1918, RFC 4193, RFC 4291, RFC 1122 */
export const USUAL_RANGES = ['127.0.0.0/8', '::1/128', '10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', 'fc00::/7', 'fe80::/10'];

/** True for a range of addresses such as 10.0.0.0/8, or one address. */
export const isRange = (text: string): boolean => {
  const [address = '', bits, ...rest] = text.split('/');
  const family = isIP(address);
  return family !== 0 && rest.length === 0 && (bits === undefined || (/^\d{1,3}$/.test(bits) && Number(bits) <= (family === 4 ? 32 : 128)));
};

/** Where instruments may stand: the server connects nowhere else, whatever a name is made to mean later. */
export class Reachable {
  private readonly list = new BlockList();

  /** @param ranges such as 10.0.0.0/8; throws a RangeError for what is none */
  constructor(private readonly ranges: readonly string[]) {
    for (const range of ranges) {
      if (!isRange(range)) throw new RangeError(`${range} is no range of addresses`);
      const [address = '', bits] = range.split('/');
      const family = isIP(address) === 4 ? 'ipv4' : 'ipv6';
      this.list.addSubnet(address, bits === undefined ? (family === 'ipv4' ? 32 : 128) : Number(bits), family);
    }
  }

  allows(address: string): boolean {
    const family = isIP(address);
    return family !== 0 && this.list.check(address, family === 4 ? 'ipv4' : 'ipv6');
  }

  /** The address of a host, by number or name; null when it stands elsewhere. Throws when the name is not known. */
  async addressOf(host: string): Promise<string | null> {
    const found = isIP(host) === 0 ? await lookup(host, { all: true }) : [{ address: host }];
    return found.every(({ address }) => this.allows(address)) ? (found[0]?.address ?? null) : null;
  }

  toString(): string {
    return this.ranges.join(', ');
  }
}
