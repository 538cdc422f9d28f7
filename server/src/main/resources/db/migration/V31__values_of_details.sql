-- What a number counts, or the currency of an amount.
alter table detail_definition add unit text not null default '';
alter table detail_definition alter unit drop default;

-- A number as details keep one; of other text nothing.
create function number_of(text) returns numeric language sql immutable parallel safe
  return case when $1 ~ '^[+-]{0,1}[0-9]{1,15}(\.[0-9]{1,6}){0,1}$' then cast($1 as numeric) end;
create index on detail (key, number_of(value)) where number_of(value) is not null;
