import * as S from "./HandOver.styles";

/** The client's sheet as it will be printed. */
export function ClientSheet() {
  return <S.Shelf>…</S.Shelf>;
}
