/** An empty house, and the made-up world of the demo, both laid through the services. */
package mellowrota.server.demo;
