package mellowrota.server.platform;

import org.hibernate.boot.model.FunctionContributions;
import org.hibernate.boot.model.FunctionContributor;
import org.hibernate.type.StandardBasicTypes;

/**
 * {@code any_of(value, array)} in HQL: one parameter however many there are, and by index, which
 * {@code in} and {@code array_contains} are not.
 */
public class AnyOf implements FunctionContributor {

  @Override
  public void contributeFunctions(FunctionContributions to) {
    to.getFunctionRegistry()
        .registerPattern(
            "any_of",
            "?1=any(?2)",
            to.getTypeConfiguration().getBasicTypeRegistry().resolve(StandardBasicTypes.BOOLEAN));
  }
}
