import type { Schemas } from "@/api/client";

type Stored<T> = T & { id: string };

export type Project = Stored<Schemas["ProjectFields"]>;
export type Site = Stored<Schemas["SiteFields"]>;
export type DesignMonth = Stored<Schemas["DesignMonthFields"]>;
export type Material = Stored<Schemas["MaterialFields"]>;
export type Assembly = Stored<Schemas["AssemblyFields"]>;
export type Layer = Stored<Schemas["LayerFields"]>;
export type Shading = Stored<Schemas["ShadingFields"]>;
export type UseItem = Stored<Schemas["UseItemFields"]>;
export type PatternPart = Schemas["PatternPart"];
export type RulePart = Schemas["RulePart"];
export type Glazing = Stored<Schemas["GlazingFields"]>;
export type Kit = Stored<Schemas["KitFields"]>;
export type Schedule = Stored<Schemas["ScheduleFields"]>;
export type Use = Stored<Schemas["UseFields"]>;
export type Level = Stored<Schemas["LevelFields"]>;
export type Zone = Stored<Schemas["ZoneFields"]>;
export type Room = Stored<Schemas["RoomFields"]>;
export type Extract = Stored<Schemas["ExtractFields"]>;
export type Transfer = Stored<Schemas["TransferFields"]>;
export type Surface = Stored<Schemas["SurfaceFields"]>;
export type Opening = Stored<Schemas["OpeningFields"]>;
export type AirSystem = Stored<Schemas["AirSystemFields"]>;
export type DuctSection = Stored<Schemas["DuctSectionFields"]>;
export type Circuit = Stored<Schemas["CircuitFields"]>;
export type PlantUnit = Stored<Schemas["PlantUnitFields"]>;
export type Price = Stored<Schemas["PriceFields"]>;
export type Tariff = Stored<Schemas["TariffFields"]>;
export type PipeSection = Stored<Schemas["PipeSectionFields"]>;

/** Kinds of a document and the rows they hold. */
export interface Kinds {
  project: Project;
  site: Site;
  design_month: DesignMonth;
  material: Material;
  assembly: Assembly;
  layer: Layer;
  shading: Shading;
  glazing: Glazing;
  kit: Kit;
  schedule: Schedule;
  use: Use;
  use_item: UseItem;
  level: Level;
  zone: Zone;
  room: Room;
  extract: Extract;
  transfer: Transfer;
  surface: Surface;
  opening: Opening;
  air_system: AirSystem;
  duct_section: DuctSection;
  circuit: Circuit;
  plant_unit: PlantUnit;
  pipe_section: PipeSection;
  tariff: Tariff;
  price: Price;
}

export type Kind = keyof Kinds;

export interface Change {
  op: "create" | "set" | "delete";
  kind: Kind;
  id: string;
  fields?: Record<string, unknown>;
}
