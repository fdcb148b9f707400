-- What the supply of a source may be that an instrument feeds; null for all other elements.
alter table path_element add column supply_lowest_volts double precision;
alter table path_element add column supply_highest_volts double precision;
alter table path_element add column supply_damage_volts double precision;
