declare module 'dcmjs' {
  /** Values by the standard's names; sequences are lists of the same. */
  export type Natural = Readonly<Record<string, unknown>>;
  interface Parsed {
    readonly meta: object;
    readonly dict: object;
  }
  interface Dcmjs {
    readonly data: {
      readonly DicomMessage: { readonly readFile: (file: ArrayBuffer) => Parsed };
      readonly DicomMetaDictionary: {
        readonly naturalizeDataset: (of: object) => Natural;
        readonly denaturalizeDataset: (of: Natural) => object;
      };
      readonly DicomDict: new (meta: object) => { dict: object; write: () => ArrayBuffer };
    };
    readonly log: { readonly setLevel: (level: string) => void };
  }
  const dcmjs: Dcmjs;
  export default dcmjs;
}
