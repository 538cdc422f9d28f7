package mellowrota.server.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.ConditionTerm;
import mellowrota.server.sight.TargetTerm;
import org.testng.annotations.Test;

/** What the API takes of the rule language is what is read, and written in files. */
public class RuleTermsTest {

  @Test
  public void everyConditionIsATerm() {
    assertThat(Input.names(SetViews.ConditionView.class))
        .containsExactlyInAnyOrderElementsOf(
            Arrays.stream(ConditionTerm.values()).map(ConditionTerm::field).toList());
  }

  @Test
  public void everyTargetIsATerm() {
    assertThat(Input.names(SetViews.TargetView.class))
        .containsExactlyInAnyOrderElementsOf(
            Arrays.stream(TargetTerm.values()).map(TargetTerm::field).toList());
  }
}
