package mellowrota.server.platform;

import org.hibernate.boot.model.FunctionContributions;
import org.hibernate.boot.model.FunctionContributor;
import org.hibernate.type.StandardBasicTypes;

/**
 * {@code holds(array, value)} in HQL: one parameter however many there are, and by index, which
 * {@code in} and {@code array_contains} are not. The array comes first, since a query whose last
 * argument of a function is a parameter is translated anew each time it is asked.
 */
public class Holds implements FunctionContributor {

  @Override
  public void contributeFunctions(FunctionContributions to) {
    to.getFunctionRegistry()
        .registerPattern(
            "holds",
            "?2=any(?1)",
            to.getTypeConfiguration().getBasicTypeRegistry().resolve(StandardBasicTypes.BOOLEAN));
  }
}
