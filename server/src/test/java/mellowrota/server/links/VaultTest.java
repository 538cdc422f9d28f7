package mellowrota.server.links;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Base64;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What is sealed opens only for what it belongs to, and with its key. */
public class VaultTest {

  private Path file;

  @BeforeMethod
  public void folder() throws IOException {
    file = Files.createTempDirectory("vault").resolve("keys");
  }

  @Test
  public void whatIsSealedOpensForWhatItBelongsToOnly() throws IOException {
    Vault vault = new Vault(file.toString());
    Vault.Sealed sealed = vault.seal("p\u00e4ss word", "ines at host");
    assertThat(new String(sealed.octets(), StandardCharsets.ISO_8859_1)).doesNotContain("word");
    assertThat(vault.open(sealed, "ines at host")).isEqualTo("p\u00e4ss word");
    assertThat(new Vault(file.toString()).open(sealed, "ines at host")).isEqualTo("p\u00e4ss word");
    assertThatThrownBy(() -> vault.open(sealed, "tam at host"))
        .isInstanceOf(IllegalStateException.class);
    assertThat(vault.seal("p\u00e4ss word", "ines at host").octets())
        .as("the same once more looks otherwise")
        .isNotEqualTo(sealed.octets());
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
        .isEqualTo("rw-------");
  }

  @Test
  public void aTamperedSecretDoesNotOpen() {
    Vault vault = new Vault(file.toString());
    Vault.Sealed sealed = vault.seal("secret", "x");
    sealed.octets()[sealed.octets().length - 1] ^= 1;
    assertThatThrownBy(() -> vault.open(sealed, "x")).isInstanceOf(IllegalStateException.class);
  }

  @Test
  public void aNewKeySealsAndTheOldOneStillOpens() throws IOException {
    Vault vault = new Vault(file.toString());
    Vault.Sealed old = vault.seal("secret", "x");
    assertThat(vault.isOld(old)).isFalse();
    Files.writeString(
        file,
        Files.readString(file) + "2 " + Base64.getEncoder().encodeToString(new byte[32]) + "\n");
    assertThat(vault.isOld(old)).isTrue();
    assertThat(vault.open(old, "x")).isEqualTo("secret");
    Vault.Sealed fresh = vault.seal("secret", "x");
    assertThat(fresh.key()).isEqualTo("2");
    assertThat(vault.open(fresh, "x")).isEqualTo("secret");
  }
}
