declare module 'node-stl' {
  export default class NodeStl {
    constructor(file: Buffer | string);
    readonly volume: number;
    readonly area: number;
  }
}
