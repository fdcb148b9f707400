-- Tiles of a desk under a name.
create table arrangement (
  id bigint generated always as identity primary key,
  area varchar(40) not null,
  name varchar(200) not null,
  tiles_json clob not null,
  unique (area, name)
);
