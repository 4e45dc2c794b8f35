import type { Schemas } from "@/api/client";
import type declared from "./fields.json";

type Stored<T> = T & { id: string };
type Pascal<S extends string> = S extends `${infer Head}_${infer Tail}`
  ? `${Capitalize<Head>}${Pascal<Tail>}`
  : Capitalize<S>;
type FieldsOf<K extends string> = Schemas[`${Pascal<K>}Fields` & keyof Schemas];

/** Kinds of a document, as the server declares them. */
export type Kind = keyof typeof declared;
/** The rows that kinds hold. */
export type Kinds = { [K in Kind]: Stored<FieldsOf<K>> };

export type Project = Kinds["project"];
export type Site = Kinds["site"];
export type DesignMonth = Kinds["design_month"];
export type Material = Kinds["material"];
export type Assembly = Kinds["assembly"];
export type Layer = Kinds["layer"];
export type Shading = Kinds["shading"];
export type UseItem = Kinds["use_item"];
export type Glazing = Kinds["glazing"];
export type Kit = Kinds["kit"];
export type Schedule = Kinds["schedule"];
export type Use = Kinds["use"];
export type Level = Kinds["level"];
export type Zone = Kinds["zone"];
export type Room = Kinds["room"];
export type Extract = Kinds["extract"];
export type Transfer = Kinds["transfer"];
export type Surface = Kinds["surface"];
export type Opening = Kinds["opening"];
export type AirSystem = Kinds["air_system"];
export type DuctSection = Kinds["duct_section"];
export type Circuit = Kinds["circuit"];
export type HotWater = Kinds["hot_water"];
export type PlantUnit = Kinds["plant_unit"];
export type Price = Kinds["price"];
export type KitNote = Kinds["kit_note"];
export type CatalogueRow = Kinds["catalogue_row"];
export type ConnectedLoad = Kinds["connected_load"];
export type Tariff = Kinds["tariff"];
export type PipeSection = Kinds["pipe_section"];
export type PatternPart = Schemas["PatternPart"];
export type RulePart = Schemas["RulePart"];

export interface Change {
  op: "create" | "set" | "delete";
  kind: Kind;
  id: string;
  fields?: Record<string, unknown>;
}
