-- A photograph of the board that a job looks at, and how large what it shows is.
create table board_picture (
  job_id bigint primary key references job (id) on delete cascade,
  type varchar(20) not null,
  width_metres double precision not null,
  height_metres double precision not null,
  picture blob not null
);
