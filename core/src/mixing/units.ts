/** Volume of paint. */
export type Millilitres = number & { readonly __unit?: 'ml' };
export type Millimetres = number & { readonly __unit?: 'mm' };
export type Grams = number & { readonly __unit?: 'g' };
